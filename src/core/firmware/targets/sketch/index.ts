import { fingerprint } from "../../../project";
import { codeText, driverParts, ownLight, region } from "../../pins";
import { fillOwn } from "../../own/marks";
import { ruled, type Ruled } from "../../rules";
import { sentBy } from "../../rules/print";
import { ROLE } from "../../usb/events";
import { usbMenu } from "../../usb/ways";
import { usbHostOf } from "../../usb/host";
import { isOnNetwork } from "../../page";
import { hasNetworkCore, PAGE_FILES_IN_C } from "../../page/sketch";
import { napOf } from "../../sleep";
import { uploadPage } from "../../upload";
import { targetOf, tidy } from "../target";
import { bringup } from "./bringup";
import { busNames, pinsFile, type Ctx } from "./ctx";
import { starter } from "./starter";

/** What the computer shows, and how the board is got back when it sends what it should not. */
function usbSteps(r: Ruled): string[] {
  const sent = sentBy(r.rules.map((x) => x.resolved));
  const menu = usbMenu(sent);
  return sent.length
    ? [
        ...(menu ? [`Beside the board ${menu}.`] : []),
        `It is also ${WHAT[ROLE[sent[0]!.usb!.event.kind]]} to the computer. Every event stands on the console too (\`usb ... down\`), so it can be tried without any program: open an empty text, a game controller's settings or an instrument first.`,
        "Does it send without end? Press reset twice quickly: the loader waits some seconds for another program.",
      ]
    : [];
}
const WHAT: Record<string, string> = {
  keyboard: "a keyboard",
  midi: "a MIDI instrument",
  joystick: "a game controller",
};

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
      ruled: ruled(c.project, parts, usbHostOf(c, host, "sketch")),
      title: codeText(c.project.title) || "Project",
      plan: fingerprint(c.project),
      light: ownLight(c, host, "sketch"),
      lateConsole: usb.kind === "native",
      online: isOnNetwork(c, host) && hasNetworkCore(family),
      nap: napOf(c, host, "sketch"),
    };
    const pins = pinsFile(x);
    return [
      { ...pins, path: "bringup/pins.h" },
      bringup(x),
      { ...pins, path: "starter/pins.h" },
      starter(x),
      ...(x.online ? PAGE_FILES_IN_C : []),
      uploadPage(c, host, "sketch", usbSteps(x.ruled)),
    ].map((f) => {
      return { path: f.path, text: fillOwn(tidy(f.text, 1), "//", (name) => region(c, host, "sketch", name)) };
    });
  },
});
