// The client's yes, with name and day.
import type { ClientProof, Problem } from "@plain-palette/contract";
import { type FormEvent, useId, useState } from "react";
import { Button } from "../parts/button.tsx";
import { todayHere } from "../proof-view/days.ts";
import { DoorProblem, door } from "./client-door.ts";
import { keepName, keptName } from "./kept-name.ts";
import { FIELD, NameField, NotTaken } from "./name-field.tsx";

export function YesForm({ token, onYes }: { token: string; onYes(view: ClientProof): void }) {
  const id = useId();
  const [name, setName] = useState(keptName);
  const [day, setDay] = useState(todayHere);
  const [hasLooked, setHasLooked] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setProblem(null);
    try {
      const view = await door.sayYes(token, { name, day });
      keepName(name);
      onYes(view);
      window.scrollTo({ top: 0 });
    } catch (error) {
      if (!(error instanceof DoorProblem)) throw error;
      setProblem(error.problem);
    }
  };
  return (
    <form
      aria-label="Say yes"
      className="grid gap-2 border border-next bg-card p-3"
      onSubmit={(event) => void send(event)}
    >
      <h2 className="font-semibold">Say yes</h2>
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          required
          className="mt-1 size-4 accent-next"
          checked={hasLooked}
          onChange={(event) => setHasLooked(event.target.checked)}
        />
        I have looked at words, colours, size and place. It may be made like this.
      </label>
      <NameField label="Name" name={name} onChange={setName} />
      <label htmlFor={`${id}-day`}>Day</label>
      <input
        id={`${id}-day`}
        type="date"
        required
        className={FIELD}
        value={day}
        onChange={(event) => setDay(event.target.value)}
      />
      <NotTaken problem={problem} />
      <Button type="submit" look="next" className="py-2 text-[15px]">
        Yes, make it so
      </Button>
    </form>
  );
}
