/**
 * The element of an array at an index that must be inside it. Throws RangeError outside: a wrong index is a
 * broken invariant of the caller, never a value to calculate with.
 */
export function cell<T>(values: ArrayLike<T>, index: number): T {
  const value = values[index];
  if (value === undefined) throw new RangeError(`index ${index} is outside of ${values.length} elements`);
  return value;
}
