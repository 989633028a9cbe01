/** An array twice as long that begins with all of this one: for lists of numbers of which nobody knows how long they get. */
export function grow(array: Int32Array): Int32Array<ArrayBuffer> {
  const grown = new Int32Array(array.length * 2);
  grown.set(array);
  return grown;
}
