import { about } from "../core/about";
import { circuitOf } from "../core/circuit";
import { EXIT, catalogue, loadFile, print, printJson, Unusable } from "./io";

/** What a place of the build is, what it does here, and what would happen without it. */
export function aboutCommand(file: string, place: string, o: { json?: boolean }): number {
  const told = about(circuitOf(loadFile(file), catalogue), place);
  if (!told)
    throw new Unusable(`${place}: there is no such place in ${file}; write a part (M1), a pin (M1.SDA) or a net (5V)`);
  if (o.json) printJson(told);
  else print([told.title, told.what, ...told.here.map((line) => `  ${line}`), told.without].join("\n"));
  return EXIT.fine;
}
