// Rows of what a process made, in its order: each with its number, name and share, alone on the table or with others.
import type { Rgb } from "@plain-palette/core/colour";
import type { ReactNode } from "react";
import { InkStrip, percent } from "../parts/ink-strip.tsx";
import { type SortableRow, useSortableRow } from "../parts/sortable.tsx";

/** Which of them lie on the table. */
export interface TableChoice {
  readonly hidden: ReadonlySet<string>;
  setHidden(hidden: ReadonlySet<string>): void;
}

/** A plate, a layer: whatever is made of a spot and has its place in an order. */
export interface MadeItem {
  readonly id: string;
  readonly name: string;
  readonly rgb: Rgb;
  readonly order: number;
  /** Of the art, 0..1. */
  readonly share: number;
}

interface RowProps {
  readonly item: MadeItem;
  readonly all: readonly MadeItem[];
  readonly choice: TableChoice;
  /** Under its strip. */
  readonly children?: ReactNode;
}

/** A row that is moved in the order. */
export function SortableMadeRow(props: RowProps) {
  const { row, grip } = useSortableRow(props.item.id, `Move ${props.item.name}`);
  return <MadeRow {...props} row={row} grip={grip} />;
}

export function MadeRow({ item, all, choice, row, grip, children }: RowProps & { row?: SortableRow; grip: ReactNode }) {
  const { id, name, rgb, order, share } = item;
  const largest = Math.max(0, ...all.map((one) => one.share));
  const isShown = !choice.hidden.has(id);
  const isAlone = isShown && all.every((other) => other.id === id || choice.hidden.has(other.id));
  const toggle = () => {
    const hidden = new Set(choice.hidden);
    if (isShown) hidden.add(id);
    else hidden.delete(id);
    choice.setHidden(hidden);
  };
  return (
    <li
      {...row}
      aria-label={name}
      className="grid grid-cols-[1rem_1.25rem_1fr_auto] items-center gap-x-2 border-t border-rule py-1.5"
    >
      <span>{grip}</span>
      <span className="text-right text-soft">{order}</span>
      <span className="flex items-baseline gap-2">
        <span className="truncate font-semibold">{name}</span>
        <span className="ml-auto text-xs text-soft">{percent(share)}</span>
      </span>
      <span className="flex items-center gap-1">
        <button
          type="button"
          aria-pressed={isAlone}
          aria-label={`Alone: ${name}`}
          className="rounded-[3px] border border-edge bg-card px-1.5 text-xs leading-5 aria-pressed:bg-ink aria-pressed:text-white"
          onClick={() =>
            choice.setHidden(isAlone ? new Set() : new Set(all.filter((one) => one.id !== id).map((one) => one.id)))
          }
        >
          Alone
        </button>
        <input type="checkbox" aria-label={`${name} on the table`} checked={isShown} onChange={toggle} />
      </span>
      <div className="col-span-2 col-start-3 mt-1">
        <InkStrip rgb={rgb} share={share} largest={largest} isFaint={!isShown} />
        {children}
      </div>
    </li>
  );
}
