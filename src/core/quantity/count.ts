/** A number with its word, one or more: `count(1, "wire")` = `1 wire`, `count(2, "bus", "buses")` = `2 buses`. */
export const count = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;
