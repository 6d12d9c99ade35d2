import { codeText } from "../../pins";
import { driverOf } from "../../drivers";
import { proofOf } from "../../proof";
import type { DriverPart, FirmwareFile } from "../../types";
import { buses, head, indent, setups, type Ctx } from "./ctx";

function scan(x: Ctx): string {
  const list = new Map<string, DriverPart[]>();
  for (const p of x.parts) if (p.address) list.set(p.bus, [...(list.get(p.bus) ?? []), p]);
  return [...list]
    .map(([bus, parts]) => {
      const want = [...new Set(parts.map((p) => p.address!))].join(", ");
      return `found = ${bus}.scan()
print(
    "YL1 scan ${x.host} bus=${bus} found=%s want=${want.replace(/, /g, ",")} %s"
    % (",".join("0x%02x" % a for a in found), "ok" if all(a in found for a in (${want},)) else "fail")
)`;
    })
    .join("\n");
}

const tuple = (items: string[]) => (items.length ? `(\n${items.map((i) => `    ${i},`).join("\n")}\n)` : "()");

/** Every part by itself, in order of supply, bus, identity, function; what a program can't know is asked. */
export function bringup(x0: Ctx): FirmwareFile {
  const parts = [...x0.parts].sort((a, b) => (driverOf(a)?.order ?? 99) - (driverOf(b)?.order ?? 99));
  const x = { ...x0, parts };
  const proofs = parts.map(proofOf);
  const tests = parts
    .map(
      (p, i) => `def test_${i}():  # ${p.ref} ${p.label}
${indent(driverOf(p)?.micropython?.bringup?.(p) || `print("YL1 part ${p.ref} wired=1 info")`)}


`,
    )
    .join("");
  const careful = proofs.some((q) => q.kind === "seen" && q.careful);
  const tell = proofs.map((q, i) => {
    const ref = parts[i]!.ref;
    if (q.kind === "seen" && q.careful)
      return `lambda i: "YL1 ask ${ref} ${q.question} y or n info" if shown[i] else "YL1 ask ${ref} ${q.careful} then type ${i + 1} and Enter info"`;
    if (q.kind === "seen") return `"YL1 ask ${ref} ${q.question} y or n info"`;
    if (q.kind === "watch") return `"YL1 ask ${ref} ${q.act} info"`;
    return q.kind === "unproven" ? `"YL1 open ${ref} ${q.why} info"` : "None";
  });
  const watches = parts.map((p, i) => {
    const q = proofs[i]!;
    const expression = q.kind === "watch" ? driverOf(p)?.micropython?.watch?.(p) : undefined;
    return expression && q.kind === "watch" ? `(lambda: ${expression}, ${q.by}, ${q.steady_ms})` : "None";
  });
  const light = x.light;
  return {
    path: "bringup.py",
    text: `${head(x, "bring-up, proves each part by itself")}
import sys

PARTS = ${parts.length}
# What is known of each part: 0 nothing yet, 1 it works, 2 it does not.
known = [0] * PARTS
turn = [0]
${
  careful
    ? `# What may move or switch something is only shown when it is asked for by its number.
alone = [False]
shown = [False] * PARTS
`
    : ""
}

def judge(ok):
    if not ok:
        known[turn[0]] = 2
    elif known[turn[0]] == 0:
        known[turn[0]] = 1
    return "ok" if ok else "fail"


${buses(x)}
${setups(x)}


${tests}NAMES = ${tuple(parts.map((p) => `"${p.ref}"`))}
TESTS = ${tuple(parts.map((_, i) => `test_${i}`))}
TELL = ${tuple(tell)}
SEEN = ${tuple(proofs.map((q) => (q.kind !== "seen" ? "None" : q.careful ? "shown" : "True")))}
WATCH = ${tuple(watches)}
first = [0] * PARTS
# Since when the part stands elsewhere than at first; None: it does not.
since = [None] * PARTS


def test(i):
    turn[0] = i
    known[i] = 0
    try:
        TESTS[i]()
    except OSError:
        print("YL1 bus %s answer=0 %s" % (NAMES[i], judge(False)))
    first[i] = WATCH[i][0]() if WATCH[i] else 0


def tell(i):
    # What a person can do to prove the part.
    if known[i] == 0 and TELL[i]:
        print(${careful ? "TELL[i](i) if callable(TELL[i]) else TELL[i]" : "TELL[i]"})


def summary():
    n = [known.count(k) for k in range(3)]
    end = "fail" if n[2] else "info" if n[0] else "ok"
    print("YL1 done parts=%d proven=%d failed=%d unproven=%d %s" % (PARTS, n[1], n[2], n[0], end))


def run():
    print("YL1 hello ${x.host} chip=${codeText(x.c.netlist.instance(x.host)!.part.board!.chip)} plan=${x.plan} info")
${indent(scan(x))}
    for i in range(PARTS):
        test(i)
    for i in range(PARTS):
        tell(i)
    summary()


def keys():
    # What was typed, a key at a time; nothing where nobody can type.
    try:
        import select

        poll = select.poll()
        poll.register(sys.stdin, select.POLLIN)
    except (ImportError, AttributeError, OSError, TypeError, ValueError):
        poll = None
    while True:
        try:
            key = sys.stdin.read(1) if poll and poll.poll(0) else ""
        except OSError:
            poll, key = None, ""
        yield key


run()
${light ? `light = Pin(${light.code}, Pin.OUT)\n` : ""}number = 0
# Type r for all again, a part's number and Enter for that part, y or n to what is asked.
for key in keys():
${light ? "    light.value(time.ticks_ms() // 500 % 2)\n" : ""}    for i in range(PARTS):
        if known[i] or not WATCH[i]:
            continue
        if abs(WATCH[i][0]() - first[i]) < WATCH[i][1]:
            since[i] = None
            continue
        if since[i] is None:
            since[i] = time.ticks_ms()
        if time.ticks_diff(time.ticks_ms(), since[i]) >= WATCH[i][2]:
            turn[0] = i
            print("YL1 moved %s %s" % (NAMES[i], judge(True)))
            summary()
    asked = [i for i in range(PARTS) if known[i] == 0 and ${careful ? "(SEEN[i] is True or SEEN[i] and shown[i])" : "SEEN[i]"}]
    if key == "r":
        run()
    elif key in ("y", "n") and asked:
        turn[0] = asked[0]
        print("YL1 seen %s %s" % (NAMES[asked[0]], judge(key == "y")))
        summary()
    elif key and key in "0123456789":
        number = number * 10 + int(key)
    elif key and number:
        if number <= PARTS:
${careful ? "            alone[0] = True\n" : ""}            test(number - 1)
${careful ? "            alone[0] = False\n" : ""}            tell(number - 1)
            summary()
        number = 0
    time.sleep_ms(20)
`,
  };
}
