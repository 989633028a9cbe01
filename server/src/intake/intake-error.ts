// A file that cannot be taken in: what is wrong with it, and what the sender can do.

/** Thrown for bad files only; `message` names cause and cure in the shop's words. `status` is the HTTP status it stands for. */
export class IntakeError extends Error {
  override readonly name = "IntakeError";
  constructor(
    message: string,
    readonly status: 413 | 415 | 422 = 422,
  ) {
    super(message);
  }
}
