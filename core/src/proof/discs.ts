// Stones on a proof as path data.

/** A disc round each of the middles x, y, ... */
export function discs(places: readonly number[], radius: number): string {
  let d = "";
  for (let i = 0; i < places.length; i += 2)
    d += `M${places[i] - radius} ${places[i + 1]}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0Z`;
  return d;
}
