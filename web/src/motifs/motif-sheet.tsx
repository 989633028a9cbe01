// One motif: how it is called and filed, its versions, and the jobs that place it.
import type { MotifDetail, MotifPage, MotifPatch } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef } from "react";
import { Link } from "react-router";
import { api, motifFileUrl, motifPictureUrl } from "../api/client.ts";
import { Button } from "../parts/button.tsx";
import { count } from "../parts/count.ts";
import { InPlaceText } from "../parts/in-place.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { useWrites } from "../parts/use-writes.ts";

interface Props {
  readonly id: string;
  readonly folders: MotifPage["folders"];
  onClose(): void;
}

export function MotifSheet({ id, folders, onClose }: Props) {
  const head = useRef<HTMLHeadingElement>(null);
  const detail = useQuery({ queryKey: ["motifs", "detail", id], queryFn: () => api.motifDetail(id) });
  const { problem, write, forget } = useWrites("motifs");
  const motif = detail.data;
  const isHere = motif !== undefined;
  useEffect(() => {
    if (isHere) head.current?.focus();
  }, [isHere]);
  if (detail.isError) return <ProblemNote problem={problemOf(detail.error)} onClose={onClose} />;
  if (!motif) return <p role="status">Looking at it ...</p>;
  const patch = (part: Omit<MotifPatch, "version">) =>
    void write(async () => api.changeMotif(id, { ...part, version: (await api.motifDetail(id)).version }));
  return (
    <section aria-label={`Motif ${motif.name}`} className="w-80 border border-rule bg-sheet narrow:w-full">
      <div className="grid h-56 place-items-center border-b border-rule bg-table p-4">
        <img
          src={motifPictureUrl(motif.hash)}
          alt={`${motif.name}, as it is now`}
          className="max-h-48 max-w-full object-contain"
        />
      </div>
      <div className="grid gap-3 p-4">
        <div className="flex items-center gap-2">
          <h2 ref={head} tabIndex={-1} className="min-w-0 flex-1 text-lg font-semibold focus-visible:outline-0">
            <InPlaceText
              label="Name"
              text={motif.name}
              className="w-full"
              onCommit={(name) => name && patch({ name })}
            />
          </h2>
          <Button look="quiet" onClick={onClose}>
            Close
          </Button>
        </div>
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        <Filing motif={motif} folders={folders} patch={patch} />
        <Facts motif={motif} />
        <UsedBy motif={motif} />
        <div className="flex flex-wrap gap-2">
          <a
            href={motifFileUrl(id)}
            download={`${motif.name}.svg`}
            className="rounded-[3px] border border-edge bg-card px-2.5 py-1 text-[13px] leading-5 hover:border-ink"
          >
            As one SVG
          </a>
          <NewVersion
            onPick={(file) =>
              void write(async () => api.motifEditionFromFile(id, (await api.motifDetail(id)).version, file))
            }
          />
          <Button onClick={() => patch({ isPutAway: !motif.isPutAway })}>
            {motif.isPutAway ? "Take out again" : "Put away"}
          </Button>
        </div>
      </div>
    </section>
  );
}

function NewVersion({ onPick }: { onPick(file: File): void }) {
  return (
    <label className="inline-flex cursor-pointer items-center rounded-[3px] border border-edge bg-card px-2.5 py-1 text-[13px] leading-5 focus-within:outline-2 focus-within:outline-offset-2 hover:border-ink">
      New version from a file
      <input
        type="file"
        accept=".svg,.pdf"
        className="sr-only"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = "";
          if (file) onPick(file);
        }}
      />
    </label>
  );
}

interface FilingProps {
  readonly motif: MotifDetail;
  readonly folders: Props["folders"];
  patch(part: Omit<MotifPatch, "version">): void;
}

function Filing({ motif, folders, patch }: FilingProps) {
  const id = useId();
  return (
    <div className="grid grid-cols-[4.5rem_1fr] items-center gap-y-1">
      <span className="text-soft">Folder</span>
      <InPlaceText label="Folder" text={motif.folder} placeholder="In none" onCommit={(folder) => patch({ folder })} />
      <span className="text-soft">Words</span>
      <InPlaceText
        label="Words"
        text={motif.words}
        placeholder="To find it by"
        onCommit={(words) => patch({ words })}
      />
      {folders.length > 0 && (
        <>
          <label htmlFor={id} className="text-soft">
            File in
          </label>
          <select
            id={id}
            className="min-w-0 rounded-[3px] border border-edge bg-card px-1.5 py-0.5"
            value={motif.folder}
            onChange={(event) => patch({ folder: event.target.value })}
          >
            {[...new Set([motif.folder, ...folders.map(({ name }) => name)])].map((name) => (
              <option key={name} value={name}>
                {name || "no folder"}
              </option>
            ))}
          </select>
        </>
      )}
    </div>
  );
}

function Facts({ motif }: { motif: MotifDetail }) {
  const { widthMm, heightMm, shapes, nodes, spots, from, edition } = motif;
  return (
    <dl className="grid grid-cols-[4.5rem_1fr] gap-y-0.5">
      <dt className="text-soft">True size</dt>
      <dd>
        {widthMm.toFixed(2)} × {heightMm.toFixed(2)} mm
      </dd>
      <dt className="text-soft">Made of</dt>
      <dd>
        {count(shapes, "shape")}, {count(nodes, "node")}
      </dd>
      <dt className="text-soft">Colours</dt>
      <dd className="grid gap-0.5">
        {spots.map((spot) => (
          <span key={spot.hex + spot.name} className="flex items-center gap-2">
            <span className="h-3 w-6 border border-soft/40" style={{ background: spot.hex }} />
            {spot.name}
          </span>
        ))}
      </dd>
      <dt className="text-soft">From</dt>
      <dd className="break-words">{from || "not said"}</dd>
      <dt className="text-soft">Version</dt>
      <dd>
        {edition} of {motif.editions.length}
      </dd>
    </dl>
  );
}

function UsedBy({ motif }: { motif: MotifDetail }) {
  const { usedBy, edition } = motif;
  if (usedBy.length === 0) return <p className="text-soft">No job places it.</p>;
  return (
    <div>
      <h3 className="text-soft">In {count(usedBy.length, "job")}</h3>
      <ul aria-label="Jobs that place it">
        {usedBy.map((job) => (
          <li key={`${job.jobId} ${job.edition}`}>
            <Link to={`/jobs/${job.jobId}/shapes`} className="underline">
              No. {job.number} {job.title}
            </Link>
            {job.edition < edition && <span className="text-soft">, still version {job.edition}</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
