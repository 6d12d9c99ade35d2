import { fingerprint } from "../../../project";
import { codeText, driverParts, ownLight, region } from "../../pins";
import { fillOwn } from "../../own/marks";
import { ruled } from "../../rules";
import { uploadPage } from "../../upload";
import { targetOf, tidy } from "../target";
import { bringup } from "./bringup";
import { busNames, pinsFile, type Ctx } from "./ctx";
import { starter } from "./starter";

/** C++ sketches for the boards' core API: bring-up and starter, each with its own copy of the pins file. */
export const sketch = targetOf({
  id: "sketch",
  name: "C++ sketch",
  says: "bringup.ino, starter.ino and pins.h for the board's core API; no library to install",
  unfit: ({ board }) => (board!.targets.sketch ? null : `no sketch core for ${board!.chip} here`),
  files: (c, host) => {
    const { family, usb } = c.netlist.instance(host)!.part.board!;
    const parts = driverParts(c, host, "sketch", busNames(family));
    const x: Ctx = {
      c,
      host,
      family,
      parts,
      ruled: ruled(c.project, parts),
      title: codeText(c.project.title) || "Project",
      plan: fingerprint(c.project),
      light: ownLight(c, host, "sketch"),
      lateConsole: usb.kind === "native",
    };
    const pins = pinsFile(x);
    return [
      { ...pins, path: "bringup/pins.h" },
      bringup(x),
      { ...pins, path: "starter/pins.h" },
      starter(x),
      uploadPage(c, host, "sketch"),
    ].map((f) => {
      return { path: f.path, text: fillOwn(tidy(f.text, 1), "//", (name) => region(c, host, "sketch", name)) };
    });
  },
});
