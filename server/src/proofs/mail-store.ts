// Messages to clients: all are kept, as the practice bench's mailbox shows them; with a mail server they go out, too.
import { randomUUID } from "node:crypto";
import type { Mail } from "@plain-palette/contract";
import { createTransport } from "nodemailer";
import type { DataSource } from "typeorm";

export type NewMail = Pick<Mail, "jobId" | "kind" | "to" | "subject" | "text" | "link">;

/** Where mail goes out; null: it stays in the mailbox. */
export interface MailServer {
  /** smtp:// or smtps://, with user and password where it wants them. */
  readonly url: string;
  readonly from: string;
}

export interface MailStore {
  /** The newest first. */
  list(): Promise<Mail[]>;
  /** Keeps a message and sends it; that it could not be sent is kept with it. */
  send(mail: NewMail): Promise<void>;
}

const MOST_LISTED = 200;
/** A mail server that says nothing for so long is away, ms. */
const PATIENCE_MS = 15_000;

export function makeMailStore({ manager }: DataSource, server: MailServer | null): MailStore {
  const transport =
    server && createTransport(server.url, { from: server.from, disableFileAccess: true, disableUrlAccess: true });
  return {
    async list() {
      const rows: (Omit<Mail, "createdAt"> & { createdAt: Date })[] = await manager.query(
        `SELECT id, job_id AS jobId, kind, address AS \`to\`, subject, text, link, created_at AS createdAt, state, error
         FROM mails ORDER BY sequence DESC LIMIT ?`,
        [MOST_LISTED],
      );
      return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }));
    },
    async send({ jobId, kind, to, subject, text, link }) {
      const id = randomUUID();
      await manager.query(
        `INSERT INTO mails (id, job_id, kind, address, subject, text, link, created_at, state, error)
         VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'kept', NULL)`,
        [id, jobId, kind, to, subject, text, link, new Date()],
      );
      if (!transport || to === "") return;
      const tell = (state: Mail["state"], error: string | null) =>
        manager.query("UPDATE mails SET state = ?, error = ? WHERE id = ?", [state, error, id]);
      // Nobody waits for a mail server: what became of it is seen in the mailbox.
      void withPatience(transport.sendMail({ to, subject, text })).then(
        () => tell("sent", null),
        (error) => tell("failed", error instanceof Error ? error.message.slice(0, 400) : "unknown"),
      );
    },
  };
}

function withPatience<T>(work: Promise<T>): Promise<T> {
  return Promise.race([
    work,
    new Promise<never>((_, reject) =>
      setTimeout(() => reject(new Error("the mail server does not answer")), PATIENCE_MS).unref(),
    ),
  ]);
}
