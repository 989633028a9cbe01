// Keeping shapes of the job as a motif: all, or those that are picked, under a name, in a folder, with words.
import type { Spot } from "@plain-palette/core/reduce";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { api } from "../../../api/client.ts";
import { readAnew } from "../../../api/read-anew.ts";
import { useJob } from "../../../job/use-job.ts";
import { Button } from "../../../parts/button.tsx";
import { count } from "../../../parts/count.ts";
import { ProblemNote, problemOf } from "../../../parts/problem.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { useMotifs } from "../../../shop/use-motifs.ts";
import { Group } from "../../panel.tsx";
import type { MotifDesk } from "./motif-desk.ts";

export function KeepGroup({ desk, spots }: { desk: MotifDesk; spots: readonly Spot[] }) {
  const { picked, pickedFaces, change } = desk;
  return (
    <>
      <Group title="Picked">
        <p role="status" className="pb-1 text-xs text-soft">
          {picked.length === 0
            ? "Nothing is picked: click shapes on the table. What they enclose comes along."
            : `${count(picked.length, "shape")} picked, ${pickedFaces.length} with what they enclose.`}
        </p>
        <div className="flex flex-wrap gap-1">
          <Button className={SMALL} disabled={picked.length === 0} onClick={desk.pickAlike}>
            All like these
          </Button>
          <Button className={SMALL} disabled={picked.length === 0} onClick={() => change({ picked: [] })}>
            None
          </Button>
        </div>
      </Group>
      <KeepForm desk={desk} spots={spots} />
    </>
  );
}

const SMALL = "px-2 py-0.5";
const FIELD = "w-full rounded-[3px] border border-edge bg-card px-2 py-1";

function KeepForm({ desk, spots }: { desk: MotifDesk; spots: readonly Spot[] }) {
  const id = useId();
  const job = useJob((state) => state.job);
  const queries = useQueryClient();
  const { folders, motifs } = useMotifs({ most: 200 }).data ?? { folders: [], motifs: [] };
  const [versionOf, setVersionOf] = useState("");
  const older = motifs.find((one) => one.id === versionOf) ?? null;
  const [name, setName] = useState("");
  const [folder, setFolder] = useState("");
  const [words, setWords] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<ReturnType<typeof problemOf> | null>(null);
  const isWhole = desk.picked.length === 0;
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    setSaid(null);
    setProblem(null);
    try {
      const motif = desk.made(isWhole, spots);
      if (!motif) {
        setSaid("There are no shapes of an ink to keep.");
        return;
      }
      if (older) {
        const { edition } = await api.addMotifEdition(older.id, { motif, version: older.version });
        setSaid(`${older.name} is kept in version ${edition}; jobs that place it stay as they are.`);
        setVersionOf("");
        await readAnew(queries, ["motifs"]);
        return;
      }
      const facts = { name: name.trim() || job.title, folder, words, from: `No. ${job.number} ${job.title}` };
      const { motif: kept, isNew } = await api.keepMotif({ facts, motif });
      setSaid(isNew ? `${kept.name} is kept.` : `These shapes are kept already, as ${kept.name}.`);
      setName("");
      desk.change({ picked: [] });
      await readAnew(queries, ["motifs"]);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const field = (label: string, value: string, set: (next: string) => void, more: object = {}) => (
    <div className="grid grid-cols-[4rem_1fr] items-center gap-2 py-1">
      <label htmlFor={`${id}-${label}`}>{label}</label>
      <input
        id={`${id}-${label}`}
        className={FIELD}
        value={value}
        maxLength={120}
        autoComplete="off"
        onChange={(event) => set(event.target.value)}
        {...more}
      />
    </div>
  );
  return (
    <Group title="Keep as a motif">
      <form onSubmit={(event) => void keep(event)}>
        <SelectField
          label="As"
          isWide
          value={versionOf}
          options={[
            { value: "", text: "a new motif" },
            ...motifs.map(({ id: own, name: called }) => ({ value: own, text: `a new version of ${called}` })),
          ]}
          onChange={setVersionOf}
        />
        {!older && (
          <>
            {field("Name", name, setName, { placeholder: job.title })}
            {field("Folder", folder, setFolder, { list: `${id}-folders` })}
            {field("Words", words, setWords, { placeholder: "To find it by" })}
          </>
        )}
        <datalist id={`${id}-folders`}>
          {folders.map((one) => (
            <option key={one.name} value={one.name} />
          ))}
        </datalist>
        <Button type="submit" className="mt-1">
          {isWhole ? "Keep the whole design" : "Keep the picked shapes"}
        </Button>
      </form>
      <p role="status" className="pt-1 text-xs text-soft">
        {said}
      </p>
      {problem && <ProblemNote problem={problem} onClose={() => setProblem(null)} />}
    </Group>
  );
}
