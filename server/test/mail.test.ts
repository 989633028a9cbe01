// Mail to clients over a real SMTP connection: a general-purpose server from npm takes it (RFC 5321).
import { mailListSchema } from "@plain-palette/contract";
import { SMTPServer } from "smtp-server";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Bench, changeTicket, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";

const arrived: { to: string; text: string }[] = [];
let isFull = false;
const postOffice = new SMTPServer({
  authOptional: true,
  disabledCommands: ["STARTTLS"],
  onData(stream, session, done) {
    let text = "";
    stream.on("data", (piece) => {
      text += piece;
    });
    stream.on("end", () => {
      if (isFull) return done(new Error("the mailbox is full"));
      arrived.push({ to: session.envelope.rcptTo.map(({ address }) => address).join(), text });
      done();
    });
  },
});
let bench: Bench;
beforeAll(async () => {
  await new Promise<void>((resolve) => postOffice.listen(0, "127.0.0.1", resolve));
  const address = postOffice.server.address();
  const port = typeof address === "object" && address ? address.port : 0;
  bench = await startBench({ SMTP_URL: `smtp://127.0.0.1:${port}`, SMTP_FROM: "proofs@quayside.example" });
});
afterAll(async () => {
  await bench.stop();
  await new Promise<void>((resolve) => postOffice.close(() => resolve()));
});

async function untilMail(state: string) {
  for (let tries = 0; tries < 100; tries++) {
    const [mail] = mailListSchema.parse((await send(bench.url(), "GET", "/mails")).body);
    if (mail?.state === state) return mail;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`no mail is ${state}`);
}

it("goes out where a server is set, with its link; one that is refused is said to be, and nothing stops", async () => {
  const job = await createJob(bench.url(), await drawPicture(1));
  await changeTicket(bench.url(), job.id, {
    title: "Crew\r\nBcc: all@example.org",
    clientMail: "mate@ferry.example",
  });
  await send(bench.url(), "POST", `/jobs/${job.id}/proofs`, { recipeVersion: 1 });
  const mail = await untilMail("sent");
  expect(arrived).toHaveLength(1);
  expect(arrived[0]?.to).toBe("mate@ferry.example");
  // Quoted-printable breaks lines (RFC 2045, 6.7).
  expect(arrived[0]?.text.replaceAll("=\r\n", "")).toContain(mail.link);
  expect(arrived[0]?.text).not.toMatch(/^Bcc:/m);
  isFull = true;
  await send(bench.url(), "POST", `/jobs/${job.id}/proofs`, { recipeVersion: 1 });
  expect((await untilMail("failed")).error).toContain("full");
});
