// The order that a person chose, laid over the one that is proposed.

/** Those that were chosen keep their order among themselves; each of the others follows the one it is proposed after. */
export function placeChosen(proposed: readonly string[], chosen: readonly string[]): string[] {
  const placed = chosen.filter((id) => proposed.includes(id));
  proposed.forEach((id, i) => {
    if (chosen.includes(id)) return;
    placed.splice(i > 0 ? placed.indexOf(proposed[i - 1]) + 1 : 0, 0, id);
  });
  return placed;
}
