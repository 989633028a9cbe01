// What the client asks, answers, or wants changed; with a pin, if it is about a place.
import type { ClientProof, Problem } from "@plain-palette/contract";
import { type FormEvent, useId, useState } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { DoorProblem, door } from "./client-door.ts";
import { keepName, keptName } from "./kept-name.ts";
import { FIELD, NameField, NotTaken } from "./name-field.tsx";

interface Props {
  readonly token: string;
  readonly pin: { readonly x: number; readonly y: number } | null;
  readonly replyTo: string | null;
  onPin(): void;
  onUnpin(): void;
  onSaid(view: ClientProof): void;
}

export function SayForm({ token, pin, replyTo, onPin, onUnpin, onSaid }: Props) {
  const id = useId();
  const [kind, setKind] = useState<"note" | "change">("note");
  const [text, setText] = useState("");
  const [name, setName] = useState(keptName);
  const [said, setSaid] = useState("");
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(null);
    setSaid("");
    try {
      const view = await door.say(token, { kind, text, name, replyTo, at: replyTo ? null : pin });
      keepName(name);
      setText("");
      setSaid("Sent. The shop answers here.");
      onSaid(view);
    } catch (error) {
      if (!(error instanceof DoorProblem)) throw error;
      setProblem(error.problem);
    }
  };
  return (
    <form className="grid gap-2 border border-rule bg-sheet p-3" onSubmit={(event) => void send(event)}>
      <div>
        <Choice
          label="What it is"
          value={kind}
          options={[
            { value: "note", text: replyTo ? "An answer" : "A question" },
            { value: "change", text: "Please change" },
          ]}
          onChange={(value: "note" | "change") => setKind(value)}
        />
      </div>
      {!replyTo && (
        <p className="flex flex-wrap items-center gap-2 text-soft">
          {pin ? (
            <>
              About the place that is marked.
              <button type="button" className="underline" onClick={onUnpin}>
                About the whole
              </button>
            </>
          ) : (
            <button type="button" className="underline" onClick={onPin}>
              Mark a place on the picture
            </button>
          )}
        </p>
      )}
      <label htmlFor={`${id}-text`}>{kind === "change" ? "What is to be changed" : "Your words"}</label>
      <textarea
        id={`${id}-text`}
        required
        rows={3}
        maxLength={2000}
        className={FIELD}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <NameField label="Your name" name={name} onChange={setName} />
      <NotTaken problem={problem} />
      <p role="status" className="text-soft empty:hidden">
        {said}
      </p>
      <Button type="submit" className="justify-self-start py-1.5 text-[15px]">
        Send
      </Button>
    </form>
  );
}
