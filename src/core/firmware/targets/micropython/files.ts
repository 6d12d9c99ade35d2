import type { Circuit } from "../../../circuit";
import { fingerprint } from "../../../project";
import { PART_LIB } from "../../devices/python";
import { driverOf } from "../../drivers";
import { fillOwn } from "../../own/marks";
import { codeText, driverParts, ownLight, region } from "../../pins";
import type { FirmwareFile } from "../../types";
import { isOnNetwork, PAGE_FILES } from "../../page";
import { LOG_LIB } from "../../logging";
import { ruled } from "../../rules";
import { logsOf } from "../../rules/resolve";
import { usbHostOf } from "../../usb/host";
import { napOf } from "../../sleep";
import { uploadPage } from "../../upload";
import { tidy } from "../target";
import { bringup } from "./bringup";
import { CHANNEL } from "./channel";
import { pinsFile, type Ctx } from "./ctx";
import { starter } from "./starter";

/** The programs of one board in Python; `id` says whose pin names and own code they have, `dialect` turns its text into theirs. */
export function pythonFiles(
  c: Circuit,
  host: string,
  id: "micropython" | "python",
  dialect: (text: string) => string = (t) => t,
): FirmwareFile[] {
  const parts = driverParts(c, host, id, (b) => b);
  const x: Ctx = {
    c,
    host,
    target: id,
    family: c.netlist.instance(host)!.part.board!.family,
    parts,
    ruled: ruled(c.project, parts, usbHostOf(c, host, id)),
    title: codeText(c.project.title) || "Project",
    plan: fingerprint(c.project),
    light: ownLight(c, host, id),
    online: id === "micropython" && isOnNetwork(c, host),
    nap: napOf(c, host, id),
  };
  const libs = new Map(
    x.parts
      .flatMap((p) => {
        const code = driverOf(p)?.micropython;
        return [code?.lib ?? [], code?.libsFor?.(p) ?? []].flat();
      })
      .map((l) => [l.path, l.text]),
  );
  if (logsOf(x.ruled.rules.map((r) => r.resolved)).length) libs.set(LOG_LIB.path, LOG_LIB.text);
  if (x.online) libs.set("lib/part.py", PART_LIB);
  if (x.parts.some((p) => p.via)) libs.set(CHANNEL.path, CHANNEL.text);
  return [
    pinsFile(x),
    bringup(x),
    starter(x),
    ...(x.online ? PAGE_FILES : []),
    ...[...libs].map(([path, text]) => ({ path, text })),
    uploadPage(c, host, id),
  ].map((f) => ({
    path: f.path,
    text: fillOwn(f.path.endsWith(".py") ? dialect(tidy(f.text, 2)) : tidy(f.text, 2), "#", (name) =>
      region(c, host, id, name),
    ),
  }));
}
