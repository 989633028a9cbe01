// Background away: the usual case in one click, and picks by hand, each with its tolerance.
import { formatHex } from "@plain-palette/core/colour";
import { type ActionOf, type BackgroundReach, nextActionId, pickBackground } from "@plain-palette/core/recipe";
import { useEffect } from "react";
import { isCurrent } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField } from "../../parts/fields.tsx";
import { goOnAt, labelled } from "../../parts/go-on-at.ts";
import { SlideField } from "../../parts/slide.tsx";
import { Group } from "../panel.tsx";
import { addAction, changeAction } from "./edit-actions.ts";
import type { SectionProps } from "./section-props.ts";

const REACHES = [
  { value: "connected", text: "What hangs together" },
  { value: "everywhere", text: "Everywhere" },
] as const;

export function BackgroundSection({ computed, ask, desk, change }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const picks = actions.filter((action): action is ActionOf<"pick"> => action.kind === "pick");
  const inFocus = picks.find(({ id }) => id === desk.focusId);
  const isPicking = desk.tool?.kind === "pick";
  const set = (pick: ActionOf<"pick">, part: Partial<ActionOf<"pick">>) =>
    edit((r) => changeAction(r, { ...pick, ...part }));
  return (
    <>
      <ProposalGroup computed={computed} ask={ask} desk={desk} change={change} />
      <SeeThroughGroup computed={computed} />
      <Group title="By hand">
        <Button
          aria-pressed={isPicking}
          className={isPicking ? "border-ink bg-sheet" : ""}
          onClick={() => change({ tool: isPicking ? null : { kind: "pick" }, focusId: null })}
        >
          {isPicking ? "Stop picking" : "Pick what is not the design"}
        </Button>
        <SlideField
          label="Tolerance"
          value={inFocus?.tolerance ?? desk.pick.tolerance}
          unit=""
          min={0}
          max={255}
          hint={
            inFocus
              ? `${areaText(computed)} of the picture is marked; 20 to 25 for a slightly uneven background, 60 already spills`
              : "Of the next pick; 0 to 255"
          }
          onChange={(tolerance) => {
            change({ pick: { ...desk.pick, tolerance } });
            if (inFocus) set(inFocus, { tolerance });
          }}
        />
        <Choice
          label="How far a pick reaches"
          isSmall
          value={inFocus?.reach ?? desk.pick.reach}
          options={REACHES}
          onChange={(reach) => {
            change({ pick: { ...desk.pick, reach } });
            if (inFocus) set(inFocus, { reach });
          }}
        />
      </Group>
      {picks.length > 0 && (
        <Group title="Picks">
          <ul aria-label="Picks" className="border border-rule bg-card">
            {picks.map((pick) => (
              <li key={pick.id} className="flex items-center gap-2 border-t border-rule px-2 py-1 first:border-t-0">
                <span className="size-4 border border-soft/60" style={{ background: pick.hex }} />
                <button
                  type="button"
                  aria-pressed={pick.id === desk.focusId}
                  className={`flex-1 text-left hover:underline ${pick.id === desk.focusId ? "font-semibold" : ""}`}
                  onClick={() => change({ focusId: pick.id === desk.focusId ? null : pick.id })}
                >
                  {pick.hex}, tolerance {pick.tolerance}
                </button>
                <CheckField label="on" isOn={pick.isOn} onChange={(isOn) => set(pick, { isOn })} />
              </li>
            ))}
          </ul>
        </Group>
      )}
    </>
  );
}

function areaText({ prepared }: SectionProps["computed"]): string {
  const focus = prepared?.focus;
  if (!focus) return "Nothing";
  const share = (focus.markedPx / (prepared.frame.width * prepared.frame.height)) * 100;
  return `${share.toFixed(share < 1 ? 2 : 1)} %`;
}

const TREATMENTS = [
  { value: "garment", text: "On the garment", title: "Laid on the garment's colour, as tones of their own" },
  { value: "drop", text: "Drop", title: "Nothing is printed there" },
  { value: "solid", text: "Solid", title: "Printed at full strength" },
] as const;

/** Half-transparent areas: how much there is of them, and what becomes of them. */
function SeeThroughGroup({ computed }: Pick<SectionProps, "computed">) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const decided = actions.find((one): one is ActionOf<"see-through"> => one.kind === "see-through");
  const found = computed.prepared?.seeThrough;
  if (!found && !decided) return null;
  const share = (part: number) => `${(part * 100).toFixed(1)} %`;
  return (
    <Group title="Half-transparent parts">
      {found && (
        <p role="status" className="pb-1.5">
          {share(found.share)} of the picture is half-transparent. Unless you decide, what is under one half (
          {share(found.faintShare)}) is dropped and the rest prints solid.
        </p>
      )}
      <Choice
        label="What becomes of them"
        isSmall
        value={decided?.isOn ? decided.treatment : null}
        options={TREATMENTS}
        onChange={(treatment) =>
          edit((r) =>
            decided
              ? changeAction(r, { ...decided, isOn: true, treatment })
              : addAction(r, { id: nextActionId(actions), isOn: true, kind: "see-through", treatment }),
          )
        }
      />
    </Group>
  );
}

type ProposalProps = Pick<SectionProps, "computed" | "ask" | "desk" | "change">;

/** The flat border colour, or the white box behind the art: said, and taken away in one click. */
function ProposalGroup({ computed, ask, desk, change }: ProposalProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const proposal = desk.background;
  const bitmap = computed.prepared?.bitmap;
  const isBusy = !isCurrent(computed);
  // Looked for anew whenever the picture is another one and nothing is being tuned.
  useEffect(() => {
    if (!bitmap || isBusy || desk.focusId !== null) return;
    let isWanted = true;
    void ask("background", null).then((background) => isWanted && change({ background: background ?? null }));
    return () => {
      isWanted = false;
    };
  }, [bitmap, isBusy, desk.focusId, ask, change]);
  if (!proposal || !computed.prepared || desk.focusId !== null) return null;
  const { frame } = computed.prepared;
  const hex = formatHex(proposal.rgb);
  const smaller = proposal.counters.length;
  const takeAway = (reach: BackgroundReach) => {
    const id = nextActionId(actions);
    edit((r) => addAction(r, pickBackground(proposal, frame, id, reach)));
    change({ focusId: id, tool: null, background: null });
    // It is seen whether it was too much or too little.
    goOnAt(() => labelled("Tolerance, slide"));
  };
  return (
    <Group title="The usual case">
      <p className="flex items-start gap-2 pb-1.5" role="status">
        <span className="mt-0.5 size-4 shrink-0 border border-soft/60" style={{ background: hex }} />
        <span>
          {hex} lies all round the art: {(proposal.share * 100).toFixed(0)} % of the picture.
          {proposal.islands > 0 && (
            <span className="block text-xs text-soft">
              {proposal.islands === 1 ? "One patch" : `${proposal.islands} patches`} of it inside the design: background
              seen through gaps, or part of the art.
            </span>
          )}
        </span>
      </p>
      <div className="flex flex-wrap gap-1.5">
        <Button look="next" onClick={() => takeAway("border")}>
          Take the background away
        </Button>
        {smaller > 0 && smaller < proposal.islands && (
          <Button title="Counters of letters and the like; larger patches stay" onClick={() => takeAway("counters")}>
            With {smaller === 1 ? "the small patch" : `the ${smaller} small patches`}
          </Button>
        )}
        {proposal.islands > 0 && <Button onClick={() => takeAway("everywhere")}>With the patches inside</Button>}
      </div>
    </Group>
  );
}
