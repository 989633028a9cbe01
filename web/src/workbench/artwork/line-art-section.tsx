// Line art: a cut-off with its histogram, or a local threshold; invert; weight.
import { type ActionOf, makeAction, nextActionId } from "@plain-palette/core/recipe";
import { lazy, Suspense } from "react";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField, MmField, NumberField } from "../../parts/fields.tsx";
import { SlideField } from "../../parts/slide.tsx";
import { Group } from "../panel.tsx";
import { addAction, changeAction, removeAction } from "./edit-actions.ts";
import type { SectionProps } from "./section-props.ts";

// Charts are half a megabyte: they come when they are first looked at.
const GreyChart = lazy(() => import("./grey-chart.tsx"));

export function LineArtSection({ computed, desk, change, mmPerPx }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const action = actions.findLast((one): one is ActionOf<"line-art"> => one.kind === "line-art");
  if (!action)
    return (
      <Group title="Line art">
        <p className="pb-2 text-xs text-soft">
          For drawings: what is darker than the cut-off becomes the line, in black with its soft edge kept; paper
          becomes clear.
        </p>
        <Button
          onClick={() => {
            const id = nextActionId(actions);
            edit((r) => addAction(r, makeAction({ id, kind: "line-art" })));
            change({ focusId: id });
          }}
        >
          Make it line art
        </Button>
      </Group>
    );
  // Its greys are only told while it is in focus.
  if (desk.focusId !== action.id && desk.tool === null)
    return (
      <Group title="Line art">
        <Button onClick={() => change({ focusId: action.id })}>Change the line art</Button>
      </Group>
    );
  const set = (part: Partial<ActionOf<"line-art">>) => edit((r) => changeAction(r, { ...action, ...part }));
  const focus = computed.prepared?.focus;
  const greys = focus?.id === action.id ? focus.greys : null;
  return (
    <Group title="Line art">
      <div className="pb-1">
        <Choice
          label="Kind of cut-off"
          value={action.method}
          options={[
            { value: "even", text: "One cut-off", title: "For scans" },
            {
              value: "local",
              text: "Uneven light",
              title: "A threshold from each place's surroundings, for photographed drawings",
            },
          ]}
          onChange={(method) => set({ method })}
        />
      </div>
      {action.method === "even" ? (
        <>
          <Suspense fallback={<p className="h-32 text-xs text-soft">Drawing the greys ...</p>}>
            {greys && <GreyChart counts={greys.counts} cutOff={action.cutOff} onCutOff={(cutOff) => set({ cutOff })} />}
          </Suspense>
          <SlideField
            label="Cut-off"
            value={Math.round(action.cutOff * 100)}
            unit="%"
            min={1}
            max={99}
            hint="Of white; faint drawings need 60 to 80 %"
            onChange={(value) => set({ cutOff: value / 100 })}
          />
          <Button disabled={!greys} onClick={() => greys && set({ cutOff: (greys.otsu + 0.5) / 255 })}>
            Find it{greys ? `: ${Math.round(((greys.otsu + 0.5) / 255) * 100)} %` : ""}
          </Button>
        </>
      ) : (
        <>
          <NumberField
            label="Surroundings"
            value={action.windowPx}
            unit="px"
            min={3}
            max={2001}
            stepBy={4}
            hint={`${(action.windowPx * mmPerPx).toFixed(1)} mm: a few times the widest line`}
            onChange={(windowPx) => set({ windowPx: Math.round(windowPx) })}
          />
          <SlideField
            label="Strictness"
            value={Math.round(action.k * 100)}
            unit="%"
            min={2}
            max={90}
            hint="Higher leaves more paper clean, lower keeps fainter lines"
            onChange={(value) => set({ k: value / 100 })}
          />
        </>
      )}
      <MmField
        label="Line weight"
        valueMm={Number((action.weightPx * mmPerPx).toFixed(3))}
        min={-40 * mmPerPx}
        max={40 * mmPerPx}
        hint="Every line grows by this across; below nothing it thins"
        onChange={(mm) => set({ weightPx: mm / mmPerPx })}
      />
      <CheckField label="Light lines on dark" isOn={action.isInverted} onChange={(isInverted) => set({ isInverted })} />
      <CheckField
        label="Keep white paper"
        isOn={action.paper === "white"}
        onChange={(isWhite) => set({ paper: isWhite ? "white" : "clear" })}
      />
      <Button
        className="mt-1"
        onClick={() => {
          change({ focusId: null });
          edit((r) => removeAction(r, action.id));
        }}
      >
        No line art
      </Button>
    </Group>
  );
}
