/** A number with what is counted: "1 piece", "3 pieces". The plural is formed with an s where none is given. */
export const countOf = (n: number, one: string, many = `${one}s`) => `${n} ${Math.abs(n) === 1 ? one : many}`;
