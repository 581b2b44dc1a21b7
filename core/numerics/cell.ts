/**
 * The element of an array at an index that must be inside it. Throws RangeError outside: a wrong index is a
 * broken invariant of the caller, never a value to calculate with.
 */
export function cell<T>(values: ArrayLike<T>, index: number): T {
  const value = values[index];
  if (value === undefined) outside(values.length, index);
  return value;
}

// The engine learns of an access once for each function: one function for every kind of array is slow for all
// of them in the innermost loops. So the arrays of numbers have their own. Where they are called most, a
// constant of the module stands for them: after translation an imported name may be looked up anew at each
// call. Measured on the sources, both together save about a sixth of the first diagnosis of a circuit.

/** The same of an array of numbers with fraction; a NaN in it is given back as it is. */
export function floatAt(values: Float64Array, index: number): number {
  const value = values[index];
  if (value === undefined) outside(values.length, index);
  return value;
}

/** The same of an array of whole numbers. Throws RangeError outside. */
export function intAt(values: Int32Array, index: number): number {
  const value = values[index];
  if (value === undefined) outside(values.length, index);
  return value;
}

function outside(length: number, index: number): never {
  throw new RangeError(`index ${index} is outside of ${length} elements`);
}
