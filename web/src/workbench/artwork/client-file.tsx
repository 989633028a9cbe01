// The client's file: what it is, which page of it, and a better version in its place.

import type { Problem } from "@plain-palette/contract";
import { useRef, useState } from "react";
import { artworkFileUrl, replaceArtwork } from "../../api/client.ts";
import type { Sending } from "../../api/requests.ts";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { ProblemNote, problemOf } from "../../parts/problem.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { SendingLine } from "../../parts/sending-line.tsx";
import { Fact, Group } from "../panel.tsx";

const MADE_OF = {
  pixels: "pixels",
  shapes: "shapes, drawn here as pixels",
  mixed: "a page with pictures in it, drawn here as pixels",
} as const;

export function ClientFile({ computed }: { computed: Computed }) {
  const { artwork } = useJob((state) => state.job);
  const { source } = computed;
  const size = source ?? artwork;
  return (
    <Group title="The client's file">
      <dl>
        <Fact label="Name">
          <span className="break-all">{artwork.fileName}</span>
        </Fact>
        <Fact label="Kind">
          {artwork.kind.toUpperCase()}: {MADE_OF[artwork.content]}
        </Fact>
        <Fact label="Size">
          {size.width} × {size.height} px
        </Fact>
        <Fact label="Weight">
          {artwork.bytes > 1e6 ? `${(artwork.bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(artwork.bytes / 1e3)} kB`}
        </Fact>
        <Fact label="Transparency">{artwork.hasAlpha ? "has an alpha channel" : "none"}</Fact>
        {artwork.dpi !== null && <Fact label="Written in the file">{Math.round(artwork.dpi)} dpi</Fact>}
      </dl>
      {artwork.pages > 1 && <PageField pages={artwork.pages} />}
      <p className="mt-2 text-xs text-soft">
        Kept untouched.{" "}
        <a href={artworkFileUrl(artwork.hash)} download={artwork.fileName} className="underline">
          Download it
        </a>
      </p>
      <ReplaceFile />
    </Group>
  );
}

function PageField({ pages }: { pages: number }) {
  const page = useJob((state) => state.recipe.artwork.page);
  const edit = useJob((state) => state.edit);
  return (
    <SelectField
      label={`Page of ${pages}`}
      value={String(page)}
      options={Array.from({ length: pages }, (_, i) => ({ value: String(i + 1), text: i + 1 }))}
      onChange={(value) => edit((r) => ({ ...r, artwork: { ...r.artwork, page: Number(value) } }))}
    />
  );
}

/** What a replacement did, in words. */
interface Replaced {
  readonly from: { readonly width: number; readonly height: number };
  readonly to: { readonly width: number; readonly height: number };
}

function ReplaceFile() {
  const job = useJob((state) => state.job);
  const flush = useJob((state) => state.flush);
  const adopt = useJob((state) => state.adopt);
  const input = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [progress, setProgress] = useState<{ readonly name: string; readonly sending: Sending } | null>(null);
  const [replaced, setReplaced] = useState<Replaced | null>(null);
  const abort = useRef<AbortController | null>(null);
  const take = async (file: File) => {
    const { width, height } = job.artwork;
    abort.current = new AbortController();
    setProblem(null);
    setReplaced(null);
    const onSending = (sending: Sending) => setProgress({ name: file.name, sending });
    onSending(0);
    try {
      const after = await replaceArtwork(job.id, await flush(), {
        ...{ file, onSending, signal: abort.current.signal },
      });
      adopt(after);
      setReplaced({ from: { width, height }, to: after.artwork });
    } catch (error) {
      if (!abort.current.signal.aborted) setProblem(problemOf(error));
    } finally {
      setProgress(null);
    }
  };
  return (
    <div className="mt-2">
      <input
        ref={input}
        type="file"
        className="sr-only"
        aria-label="A better version of the file"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void take(file);
          event.target.value = "";
        }}
      />
      {progress === null ? (
        <Button onClick={() => input.current?.click()}>Replace by a better version</Button>
      ) : (
        <SendingLine name={progress.name} sending={progress.sending} onCancel={() => abort.current?.abort()} />
      )}
      {problem && <ProblemNote problem={problem} />}
      {replaced && <ReplacedNote {...replaced} />}
    </div>
  );
}

function ReplacedNote({ from, to }: Replaced) {
  const isOtherShape = Math.abs(to.width / to.height / (from.width / from.height) - 1) > 0.01;
  return (
    <p role="status" className={`mt-1 text-xs ${isOtherShape ? "text-wrong" : "text-soft"}`}>
      {from.width} × {from.height} px before, {to.width} × {to.height} px now; the recipe is kept and everything in it{" "}
      {isOtherShape
        ? "was scaled by the width. The proportions differ, so places may be off: look through what was done below."
        : "was scaled to the new picture. What does not fit any more is said below."}{" "}
      Undo brings the old file back.
    </p>
  );
}
