// What kind of motif is looked for: folder, a colour it has, how many colours and shapes, put away or not.
import type { MotifPage, MotifSearch } from "@plain-palette/contract";
import { useId } from "react";
import { Button } from "../parts/button.tsx";
import { CheckField } from "../parts/fields.tsx";

export interface MotifFilter {
  /** Null: all. */
  readonly folder: string | null;
  readonly hex: string | null;
  readonly mostSpots: number | null;
  readonly mostShapes: number | null;
  readonly isPutAway: boolean;
}

export const NO_FILTER: MotifFilter = { folder: null, hex: null, mostSpots: null, mostShapes: null, isPutAway: false };

export function searchOf({ folder, hex, mostSpots, mostShapes, isPutAway }: MotifFilter): MotifSearch {
  return {
    ...(folder === null ? {} : { folder }),
    ...(hex === null ? {} : { hex }),
    ...(mostSpots === null ? {} : { mostSpots }),
    ...(mostShapes === null ? {} : { mostShapes }),
    putAway: isPutAway ? "yes" : "no",
  };
}

interface Props {
  readonly filter: MotifFilter;
  readonly folders: MotifPage["folders"];
  onChange(filter: MotifFilter): void;
}

const FIELD = "rounded-[3px] border border-edge bg-card px-1.5 py-1";
const MANY = [1, 2, 3, 4, 6, 8] as const;
const SHAPES = [1, 5, 20, 100] as const;

export function FilterBar({ filter, folders, onChange }: Props) {
  const id = useId();
  const { folder, hex, mostSpots, mostShapes, isPutAway } = filter;
  const most = (
    label: string,
    value: number | null,
    options: readonly number[],
    set: (most: number | null) => void,
  ) => (
    <span className="flex items-center gap-2">
      <label htmlFor={`${id}-${label}`}>{label}</label>
      <select
        id={`${id}-${label}`}
        className={FIELD}
        value={value ?? ""}
        onChange={(event) => set(event.target.value === "" ? null : Number(event.target.value))}
      >
        <option value="">any</option>
        {options.map((one) => (
          <option key={one} value={one}>
            at most {one}
          </option>
        ))}
      </select>
    </span>
  );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1">
      <span className="flex items-center gap-2">
        <label htmlFor={`${id}-folder`}>Folder</label>
        <select
          id={`${id}-folder`}
          className={`${FIELD} max-w-48`}
          value={folder === null ? "*" : `=${folder}`}
          onChange={(event) =>
            onChange({ ...filter, folder: event.target.value === "*" ? null : event.target.value.slice(1) })
          }
        >
          <option value="*">all</option>
          {folders.map((one) => (
            <option key={one.name} value={`=${one.name}`}>
              {one.name || "in none"} ({one.motifs})
            </option>
          ))}
        </select>
      </span>
      <span className="flex items-center gap-2">
        <label htmlFor={`${id}-colour`}>With a colour like</label>
        <input
          id={`${id}-colour`}
          type="color"
          className="h-7 w-9 border border-rule bg-card"
          value={hex ?? "#888888"}
          onChange={(event) => onChange({ ...filter, hex: event.target.value })}
        />
        {hex !== null && (
          <Button look="quiet" onClick={() => onChange({ ...filter, hex: null })}>
            Any colour
          </Button>
        )}
      </span>
      {most("Colours", mostSpots, MANY, (mostOf) => onChange({ ...filter, mostSpots: mostOf }))}
      {most("Shapes", mostShapes, SHAPES, (mostOf) => onChange({ ...filter, mostShapes: mostOf }))}
      <CheckField label="Put away" isOn={isPutAway} onChange={(isAway) => onChange({ ...filter, isPutAway: isAway })} />
    </div>
  );
}
