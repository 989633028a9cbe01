// What is written to a client.
import type { Mail, ShopProof } from "@plain-palette/contract";

export type MailKind = Mail["kind"];

interface About {
  readonly shopName: string;
  readonly title: string;
  readonly client: string;
  readonly proof: ShopProof;
  /** What the shop asks or answers; of a proof that is ready "again", where it is not the first. */
  readonly text: string;
}

export function writeMail(kind: MailKind, { shopName, title, client, proof, text }: About) {
  const day = proof.endsAt.slice(0, 10);
  const end = `\n\n${proof.link}\n\nThe link is open until ${day} and needs no account.\n\n${shopName}`;
  const hello = client ? `To ${client},\n\n` : "";
  switch (kind) {
    case "ready":
      return {
        subject: `${title}: ${text ? `version ${proof.number} ` : ""}to look at`,
        text: `${hello}Your design is ready to look at${text ? " again" : ""}. Please say yes to it, ask, or say what to change:${end}`,
      };
    case "question":
      return { subject: `${title}: a word about your design`, text: `${hello}${text}\n\nPlease answer here:${end}` };
    case "reminder":
      return {
        subject: `${title}: we wait for your word`,
        text: `${hello}Nothing is made before you have said yes. Your design is here to look at:${end}`,
      };
  }
}
