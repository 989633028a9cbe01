// A list whose rows are moved by dragging or from the keyboard.
import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import type { CSSProperties, ReactNode } from "react";

type Dragged = Pick<DragEndEvent["active"], "data">;

/** A row by the name that it was given, and its place in its list. */
const nameOf = ({ data }: Dragged) => String(data.current?.name ?? "row");
const placeOf = ({ data }: Dragged) => {
  const { index = 0, items = [] } = data.current?.sortable ?? {};
  return `${index + 1} of ${items.length}`;
};

/** What assistive software says of a move: the row's own name, never the id it has in the program. */
const ANNOUNCEMENTS: Announcements = {
  onDragStart: ({ active }) => `${nameOf(active)} is picked up, at place ${placeOf(active)}.`,
  onDragOver: ({ active, over }) =>
    over ? `${nameOf(active)} is over place ${placeOf(over)}.` : `${nameOf(active)} is beside the list.`,
  onDragEnd: ({ active, over }) =>
    over ? `${nameOf(active)} was put at place ${placeOf(over)}.` : `${nameOf(active)} stays where it was.`,
  onDragCancel: ({ active }) => `${nameOf(active)} stays where it was.`,
};

/** Takes moves of the rows inside it; each group of `groups` (ids) is ordered by itself. */
export function SortableGroups({
  groups,
  onMove,
  children,
}: {
  groups: readonly (readonly string[])[];
  /** The row `id` was put in the place of another. */
  onMove(id: string, toPlaceOf: string): void;
  /** What to show of each group. */
  children: (ids: readonly string[], group: number) => ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{ announcements: ANNOUNCEMENTS }}
    >
      {groups.map((ids, group) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a group is its place; with another first row it is the same list.
        <SortableContext key={group} items={[...ids]} strategy={verticalListSortingStrategy}>
          {children(ids, group)}
        </SortableContext>
      ))}
    </DndContext>
  );
}

/** Props of the element that is moved. */
export interface SortableRow {
  readonly ref: (element: HTMLElement | null) => void;
  readonly style: CSSProperties;
}

/** What a row needs to be moved: its element's props, and the grip to move it by; `isFixed`: one beside the order, without. */
export function useSortableRow(id: string, label: string, isFixed = false): { row: SortableRow; grip: ReactNode } {
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({
    id,
    disabled: isFixed,
    data: { name: label.replace(/^Move /, "") },
  });
  return {
    row: { ref: setNodeRef, style: { transform: CSS.Translate.toString(transform), transition } },
    grip: isFixed ? null : (
      <button
        type="button"
        className="cursor-grab touch-none px-0.5 py-1 text-soft"
        {...attributes}
        {...listeners}
        aria-label={label}
      >
        <GripVertical size={14} />
      </button>
    ),
  };
}

/** The ids with one in the place of another. */
export function moveInList(ids: readonly string[], id: string, toPlaceOf: string): string[] {
  return arrayMove([...ids], ids.indexOf(id), ids.indexOf(toPlaceOf));
}
