import { Command } from "commander";
import { EXIT, Unusable } from "./io";

/** Verbs that may plan: another solver stands by for what takes long. */
const PLANS = new Set(["assign", "boards", "idea", "pattern", "place", "plan", "wire"]);

/**
 * The `lattice` command. What a verb stands on is loaded when it is asked for: checking needs no printing. Results to stdout,
 * messages to stderr; exit status 0 fine, 2 unusable input, 3 findings, 4 no plan.
 */
export async function main(argv: string[]): Promise<number> {
  let status: number = EXIT.fine;
  const done = (s: number) => void (status = s);
  const program = new Command("lattice")
    .description("Plans and checks the wiring of microcontroller projects")
    .exitOverride()
    .configureOutput({ writeErr: (t) => process.stderr.write(t) })
    .hook("preAction", async (_, verb) => {
      if (!PLANS.has(verb.name())) return;
      const [{ helpWith }, { threadProver }] = await Promise.all([import("../core/plan/assign"), import("../prove")]);
      helpWith(threadProver);
    });
  program
    .command("parts")
    .description("list the catalogue")
    .option("--kind <kind>", "board, module, discrete, supply or chip")
    .option("--json", "one JSON value")
    .action(async (o) => done(await (await import("./parts")).partsCommand(o)));
  program
    .command("part <id>")
    .description(
      "one definition, whole; of a part file (*.part.json): what is wrong with it, and what can be judged by it",
    )
    .option("--json", "one JSON value")
    .action(async (id, o) => done(await (await import("./parts")).partCommand(id, o)));
  program
    .command("idea <words...>")
    .description("what an idea in your own words wants: two or three ways for each thing, and a planned project of it")
    .option("--in <file>", "join it to this project")
    .option("--take <thing=way...>", "another way than the first")
    .option("--board <id>", "this board, where the project has none")
    .option("--out <file>", "write the project that comes of it, planned and checked")
    .option("--json", "one JSON value")
    .action(async (words, o) => done(await (await import("./idea")).ideaCommand(words, o)));
  program
    .command("pattern [id]")
    .description("small projects that are sound as they stand: all of them, or one planned on a board")
    .option("--board <id>", "one of the boards that it is sound on")
    .option("--out <file>", "write its project")
    .option("--json", "one JSON value")
    .action(async (id, o) => done(await (await import("./pattern")).patternCommand(id, o)));
  program
    .command("lesson <file>")
    .description("a lesson on a plan: time, questions with answers, risks, faults to find; the printed pack")
    .option("--level <level>", "7-11, 11-14 or 14+")
    .option("--minutes <n>", "of a meeting")
    .option("--aims <aim...>", "what shall be learned")
    .option("--benches <n>", "how many")
    .option("--paper <paper>", "a4 or letter")
    .option("--out <folder>", "write sheets, teacher's pages, slides, labels and lists")
    .option("--force", "replace what an earlier pack wrote there")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./lesson")).lessonCommand(file, o)));
  program
    .command("course <files...>")
    .description(
      "several projects on one kit: what to have, to order by week, to put into boxes, to test when it comes back",
    )
    .option("--title <title>", "what it is called")
    .option("--benches <n>", "how many")
    .option("--lead <weeks>", "from ordering to having")
    .option("--stays <n...>", "the builds of these lessons stay together")
    .option("--paper <paper>", "a4 or letter")
    .option("--out <folder>", "write the lists, the printed course and its file")
    .option("--force", "replace what an earlier course wrote there")
    .option("--json", "one JSON value")
    .action(async (files, o) => done(await (await import("./course")).courseCommand(files, o)));
  program
    .command("pack <file>")
    .description("the plan as one line of text, to send or to print as a code")
    .action(async (file) => done(await (await import("./pack")).packCommand(file)));
  program
    .command("unpack <text>")
    .description("a project from such a line, or from a file that holds it; - reads it from the input")
    .requiredOption("--out <file>", "write the project here")
    .action(async (text, o) => done(await (await import("./pack")).unpackCommand(text, o)));
  program
    .command("header <file> [ref]")
    .description("how the parts' headers read: what is known, what was confirmed, and confirming one")
    .option("--is <print>", "the one in hand reads like this known print")
    .option("--reads <labels...>", "its labels in order, seen from the side with the print; | between two rows")
    .option(
      "--name <label=pin...>",
      "what a label means that the catalogue doesn't know; nothing behind = leaves it open",
    )
    .option("--apart <mm>", "how far two rows are apart")
    .option("--edge <edge>", "where one row is with the print upright: bottom or top")
    .option("--forget", "nobody has looked at it")
    .option("--out <file>", "write the changed project here; left out: the file itself is changed")
    .option("--json", "one JSON value")
    .action(async (file, ref, o) => done(await (await import("./header")).headerCommand(file, ref, o)));
  program
    .command("check <file>")
    .description("findings for the links as they stand")
    .option("--json", "one JSON value")
    .option("--explain <finding>", "the way and the sums behind a finding: its rule, or rule@place")
    .action(async (file, o) => done(await (await import("./check")).checkCommand(file, o)));
  program
    .command("about <file> <place>")
    .description("what a part, pin or net is, does here, and would be missed for")
    .option("--json", "one JSON value")
    .action(async (file, place, o) => done(await (await import("./about")).aboutCommand(file, place, o)));
  program
    .command("assign <file>")
    .description("plan every open link")
    .option("--json", "one JSON value")
    .option("--out <file>", "write the planned project here")
    .option("--lp <file>", "write the same problem in CPLEX LP format")
    .option("--alternatives <n>", "the next best plans as well, up to 20")
    .option("--seconds <n>", "how long it may take; the best until then is given")
    .action(async (file, o) => done(await (await import("./assign")).assignCommand(file, o)));
  program
    .command("boards <file>")
    .description("every board tried for this parts list")
    .option("--json", "one JSON value")
    .option("--seconds <n>", "how long it may take; the best until then is given")
    .action(async (file, o) => done(await (await import("./boards")).boardsCommand(file, o)));
  program
    .command("place <file>")
    .description("place the parts on breadboards, hole by hole")
    .option("--boards <points...>", "breadboards to use: 170, 400, 830; the smallest that are enough when left out")
    .option("--json", "one JSON value")
    .option("--out <file>", "write the project with the placement here")
    .option("--seconds <n>", "how long it may take; the best until then is given")
    .action(async (file, o) => done(await (await import("./wiring")).placeCommand(file, o)));
  program
    .command("simulate <file>")
    .description("run the starter program on a bench of simulated parts: what it prints and does")
    .option("--seconds <n>", "how long, up to 3600", "10")
    .option("--board <ref>", "which board's program; the first that has one when left out")
    .option("--press <contacts...>", "contacts held, as in SW1@2 or SW1@2-2.5 (seconds); a key of a grid as in K1.3@2")
    .option("--set <felt...>", "what parts feel, as in M1.t_C=3.5 or M1.t_C=3.5@4")
    .option("--fault <name>", 'a fault of the build, as in "open-wire M1.SDA"')
    .option("--vcd <file>", "write what the board's pins did and what went over its buses as a value change dump")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./simulate")).simulateCommand(file, o)));
  program
    .command("train <file>")
    .description("practise finding a fault that is hidden in the simulated bench")
    .option("--seed <n>", "which fault; the same seed hides the same", "1")
    .option("--level <level>", "visible, continuity, voltage, bus or two", "continuity")
    .option("--benches <n>", "with --key: a set for so many benches")
    .option("--same", "with --benches: the same fault at every bench")
    .option("--key", "print what is hidden, for the teacher")
    .option("--json", "with --key: one JSON value")
    .action(async (file, o) => done(await (await import("./train")).trainCommand(file, o)));
  program
    .command("judge <file> <log>")
    .description("judge a build by what its program printed and what was measured: suspects, and what to measure next")
    .option("--readings <csv>", "a table with the columns from, to and reading, as in M1.VCC, M1.GND, 3.28 V")
    .option("--json", "one JSON value")
    .action(async (file, log, o) => done(await (await import("./judge")).judgeCommand(file, log, o)));
  program
    .command("capture <file> <capture>")
    .description("hold a logic analyser's capture (VCD or CSV) against the plan: addresses, modes, clocks, rates")
    .option("--map <channels...>", "channels by what their probes are at, as in D0=M1.SDA")
    .option("--json", "one JSON value")
    .action(async (file, capture, o) => done(await (await import("./capture")).captureCommand(file, capture, o)));
  program
    .command("rewire <before> <after>")
    .description("what a bench wired after one file needs to be wired after another")
    .option("--json", "one JSON value")
    .action(async (before, after, o) => done(await (await import("./wiring")).rewireCommand(before, after, o)));
  program
    .command("print <file>")
    .description("one print as PDF")
    .option("--what <print>", "plan, learner, answers, underlay, panel, plugboard or labels", "plan")
    .option("--paper <size>", "a4 or letter", "a4")
    .requiredOption("--out <file>", "PDF file to write")
    .action(async (file, o) => done(await (await import("./wiring")).printCommand(file, o)));
  program
    .command("plan <file>")
    .description("plan what is open, check, and write everything; wires that are there stay")
    .requiredOption("--out <dir>", "folder to write into")
    .option("--target <id...>", "firmware target (sketch, micropython); every fitting one when left out")
    .option("--force", "replace a folder that is not empty")
    .option("--replan", "let wires that nobody locked move, too")
    .action(async (file, o) => done(await (await import("./plan")).planCommand(file, o)));
  program
    .command("adopt <dir> <file>")
    .description("own code out of edited program files back into the project")
    .option("--out <file>", "write the project here instead of changing it")
    .option("--json", "one JSON value")
    .action(async (dir, file, o) => done(await (await import("./adopt")).adoptCommand(dir, file, o)));
  program
    .command("wire <file>")
    .description("wires by hand: join, cut, put between; as built; given pins; without any, list the wires")
    .option("--join <points...>", "two points each: a wire between them")
    .option("--cut <points...>", "two points each: the wire between them goes")
    .option("--between <points and part...>", "two points and a part each: the part goes into their wire")
    .option("--take-out <refs...>", "parts that go")
    .option("--close", "close the gap that a part taken out leaves")
    .option("--really <points...>", "three points each: a wire's ends as planned, and where its second end really is")
    .option("--swap <points...>", "two points each: what is joined to them is exchanged")
    .option("--turn <refs...>", "plugs that sit the wrong way round")
    .option("--other-row <refs...>", "parts whose wires are in the other row of the board's header")
    .option("--given <file>", "a program or table whose lines prescribe pins")
    .option("--out <file>", "write the changed project here")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./wire")).wireCommand(file, o)));
  program
    .command("pinmap <file>")
    .description("the plan's pins for a program of one's own")
    .option("--csv", "as a table")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./wire")).pinmapCommand(file, o)));
  program
    .command("backup <file>")
    .description("everything of the app into one file, verified; the app may be running")
    .option("--data <folder>", "the app's data folder; LATTICE_DATA or ./data when left out")
    .option("--force", "replace a file that is there")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./keep")).backupCommand(file, o)));
  program
    .command("restore <file>")
    .description("what putting a backup in the place of the app's data would do; --yes does it")
    .option("--data <folder>", "the app's data folder; LATTICE_DATA or ./data when left out")
    .option("--yes", "do it; what was there is backed up first")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./keep")).restoreCommand(file, o)));
  program
    .command("export <file>")
    .description("all projects and own parts of the app as open files in one ZIP")
    .option("--data <folder>", "the app's data folder; LATTICE_DATA or ./data when left out")
    .option("--force", "replace a file that is there")
    .option("--json", "one JSON value")
    .action(async (file, o) => done(await (await import("./keep")).exportCommand(file, o)));
  try {
    await program.parseAsync(argv, { from: "user" });
  } catch (e) {
    if (e instanceof Unusable) {
      process.stderr.write(`${e.message}\n`);
      return EXIT.unusable;
    }
    const code = (e as { exitCode?: number; code?: string }).code ?? "";
    if (code.startsWith("commander.")) return (e as { exitCode: number }).exitCode ? EXIT.unusable : EXIT.fine;
    throw e;
  }
  return status;
}
