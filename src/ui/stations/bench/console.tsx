"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { OpenFile } from "@/ui/shared/open-file";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";
import type { ConsoleTold } from "@/workers/stations/bench";
import { BAUD, listen, serialPorts, type, whyNot, type Port } from "./serial";

/** What is kept of a console, and how often it is read anew. */
const MOST_CHARACTERS = 400_000;
const READ_EVERY_MS = 400;
const MOST_BYTES = 100_000_000;

const TONE: Record<string, string> = { ok: "text-good", fail: "font-bold text-stop", info: "text-soft" };

/** The bring-up program's console: from a port, a pasted text or a file. Its lines become readings of the parts. */
export function BenchConsole() {
  const { project } = useProject();
  const { edit } = useActions();
  const [text, setText] = useState("");
  const [told, setTold] = useState<ConsoleTold | null>(null);
  const [problem, setProblem] = useState("");
  const [port, setPort] = useState<Port | null>(null);
  const [canConnect, setCanConnect] = useState(false);
  const open = useRef<{ stop(): Promise<void> } | null>(null);
  const heard = useRef("");
  const stored = useRef("");
  const projectNow = useRef(project);
  useEffect(() => {
    projectNow.current = project;
  }, [project]);
  useEffect(() => setCanConnect(serialPorts() !== null), []);
  // Left alone, the port is closed: other programs want it too.
  useEffect(() => () => void open.current?.stop(), []);
  const take = useCallback(
    async (log: string) => {
      const t = await core().console(projectNow.current, log, new Date().toISOString());
      setTold(t);
      // The same lines twice are one reading.
      const news = t.edits.filter((e) => e.type === "tick" && !stored.current.includes(`${e.id}=${e.reading};`));
      stored.current += news.map((e) => (e.type === "tick" ? `${e.id}=${e.reading};` : "")).join("");
      if (news.length) await edit({ type: "batch", edits: news });
    },
    [edit],
  );
  const connect = async () => {
    setProblem("");
    try {
      const p = await serialPorts()!.requestPort();
      await p.open({ baudRate: BAUD });
      heard.current = "";
      stored.current = "";
      setText("");
      setPort(p);
      const l = listen(p, (t) => {
        heard.current = (heard.current + t).slice(-MOST_CHARACTERS);
      });
      open.current = l;
      void l.ended.then((why) => {
        setPort(null);
        if (why) setProblem(why);
      });
    } catch (e) {
      setProblem(whyNot(e));
    }
  };
  // What came in is read a few times a second, however fast it comes.
  const shown = useRef("");
  useEffect(() => {
    const id = setInterval(() => {
      if (heard.current === shown.current || !heard.current) return;
      shown.current = heard.current;
      setText(heard.current);
      void take(heard.current);
    }, READ_EVERY_MS);
    return () => clearInterval(id);
  }, [take]);
  const paste = (log: string) => {
    stored.current = "";
    setText(log.slice(-MOST_CHARACTERS));
    void take(log);
  };
  return (
    <section aria-label="Console" className="mt-3 border border-line p-3" data-testid="console">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-lg">Console of the bring-up program</h2>
        {canConnect &&
          (port ? (
            <>
              <button className="btn" onClick={() => void open.current?.stop()}>
                Disconnect
              </button>
              {["r", "y", "n"].map((k) => (
                <button key={k} className="btn" onClick={() => void type(port, k)}>
                  {{ r: "All again (r)", y: "Yes (y)", n: "No (n)" }[k]}
                </button>
              ))}
            </>
          ) : (
            <button className="btn-main" onClick={() => void connect()}>
              Connect to the board
            </button>
          ))}
        <OpenFile
          says="Open a log"
          label="Log file"
          accept=".txt,.log,text/plain"
          open={async (f) => {
            if (!f) return;
            if (f.size > MOST_BYTES) return setProblem(`${f.name} is larger than 100 MB: give its last part.`);
            setProblem("");
            paste(await f.text());
          }}
        />
      </div>
      {!canConnect && (
        <p className="text-sm text-soft">
          This browser opens no serial ports: copy what the monitor shows ({BAUD.toLocaleString("en")} baud) and paste
          it here.
        </p>
      )}
      {problem && (
        <p role="alert" className="font-bold text-stop">
          {problem}
        </p>
      )}
      <textarea
        aria-label="What the console shows"
        rows={told?.lines.length ? 3 : 4}
        className="num mt-2 w-full text-sm"
        placeholder="YL1 hello …"
        value={text}
        onChange={(e) => paste(e.target.value)}
      />
      {told && (
        <>
          {told.says.map((s) => (
            <p key={s} className="font-bold">
              {s}
            </p>
          ))}
          <ol aria-label="Lines of the program" className="num max-h-56 overflow-auto text-sm leading-snug">
            {told.lines.map((l, i) => (
              <li key={i} className={`whitespace-pre-wrap ${TONE[l.says ?? ""] ?? ""}`}>
                {l.text}
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
