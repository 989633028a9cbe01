// Motifs: the shop's to place, those that are placed, and the job's own shapes to keep.
import type { Computed } from "../../../compute/use-compute.ts";
import { Choice } from "../../../parts/choice.tsx";
import type { ArtSize } from "../../drawn-trace.ts";
import { KeepGroup } from "./keep-group.tsx";
import { LibraryGroup } from "./library-group.tsx";
import type { MotifDesk, MotifWay } from "./motif-desk.ts";
import { PlacedGroup } from "./placed-group.tsx";
import { SettingsGroup } from "./settings-group.tsx";

interface Props {
  readonly desk: MotifDesk;
  readonly computed: Computed;
  readonly size: ArtSize;
}

export function MotifSection({ desk, computed, size }: Props) {
  const { way, change, inHand } = desk;
  const spots = computed.traced?.spots ?? [];
  const misfits = computed.traced?.misfits ?? new Map<string, string>();
  return (
    <>
      <div className="pb-3">
        <Choice
          label="Work on"
          value={way}
          options={[
            { value: "place", text: "Placed motifs" },
            { value: "pick", text: "Shapes of this job" },
          ]}
          isSmall
          onChange={(value: MotifWay) => change({ way: value })}
        />
      </div>
      {way === "pick" && <KeepGroup desk={desk} spots={spots} />}
      {way === "place" && <PlacedGroup desk={desk} misfits={misfits} size={size} />}
      {way === "place" && inHand && <SettingsGroup key={inHand.entry.id} desk={desk} placed={inHand} spots={spots} />}
      <LibraryGroup desk={desk} size={size} />
    </>
  );
}
