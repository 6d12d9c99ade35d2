"use client";
import Link from "next/link";
import { useState } from "react";
import type { CompanionKey } from "@/core/project";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";
import { PrintCheck } from "../print/check";
import { useConfirmPrint } from "../use-drawer";
import type { PartView, View } from "@/workers/view";
import { OptionField } from "../options";
import { ConnectorTable } from "./connector";
import { Label } from "@/ui/shared/label";

type HostChoice = View["hosts"][number];

function Chain({ part }: { part: PartView }) {
  const { run } = useActions();
  const chain = part.chain!;
  const id = `${part.ref}-chain`;
  return (
    <Label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
      <span className="text-soft">Data comes from</span>
      <Select
        id={id}
        value={chain.after ?? ""}
        options={[
          { value: "", name: "a board pin of its own" },
          ...[...new Set([...(chain.after ? [chain.after] : []), ...chain.can])].map((r) => ({
            value: r,
            name: `the end of ${r}`,
          })),
        ]}
        onChange={(after) => void run(async (p) => core().chain(p, part.ref, after || null))}
      />
    </Label>
  );
}

/** Which of several boards a part hangs on. */
function Host({ part, hosts }: { part: PartView; hosts: readonly HostChoice[] }) {
  const { run } = useActions();
  const id = `${part.ref}-host`;
  return (
    <Label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
      <span className="text-soft">Hangs on</span>
      <Select
        id={id}
        value={part.host ?? ""}
        options={hosts.map((h) => ({ value: h.ref, name: `${h.label === h.ref ? h.name : h.label} (${h.ref})` }))}
        onChange={(host) => void run(async (p) => core().host(p, part.ref, host))}
      />
    </Label>
  );
}

/** Buses of a part that the program may do itself, and a way to take that back. */
function Software({ part }: { part: PartView }) {
  const { edit } = useActions();
  return part.software.map((group) => (
    <Checkbox
      key={group}
      className="mr-5 text-sm"
      checked
      onChange={() => void edit({ type: "setSoftware", ref: part.ref, group, software: false })}
    >
      {group} may be done in software
    </Checkbox>
  ));
}

/** How the header of the one in hand reads: looked at, or asked. */
function Header({ part }: { part: PartView }) {
  const { project } = useProject();
  const confirm = useConfirmPrint();
  const [again, setAgain] = useState(false);
  const print = part.print!;
  const chosen = project.parts.find((p) => p.ref === part.ref)?.print;
  const said = (
    <p className="text-sm">
      <span className="text-soft">Header:</span> <span className="num">{print.text}</span>,{" "}
      {print.confirmed ? "looked at" : "not confirmed"}{" "}
      {print.confirmed && !again && (
        <button
          className="quiet"
          aria-label={`look again at the header of ${part.label}`}
          onClick={() => setAgain(true)}
        >
          look again
        </button>
      )}
    </p>
  );
  return (
    <>
      {said}
      {(!print.confirmed || again) && (
        <PrintCheck
          id={part.part}
          of={part.label}
          chosen={chosen}
          save={(p) => {
            setAgain(false);
            void confirm(part.ref, part.part, p);
          }}
        />
      )}
    </>
  );
}

/** What stands below a part's line: its page, options, what stands around it and why, what to take care of. */
export function Details({ part, hosts }: { part: PartView; hosts: readonly HostChoice[] }) {
  const { edit } = useActions();
  const choosesHost = hosts.length > 1 && !part.isHost && part.kind !== "supply";
  return (
    <div className="pb-2 pl-14">
      <p className="text-sm">
        {part.does}.{" "}
        <Link className="quiet" href={`/parts/${part.part}`}>
          its page
        </Link>
      </p>
      {(part.options.length > 0 || part.chain || choosesHost || part.software.length > 0) && (
        <div className="flex flex-wrap gap-y-1">
          {part.options.map((o) => (
            <OptionField
              key={o.key}
              id={`${part.ref}-${o.key}`}
              option={o}
              value={o.value}
              save={(value) => void edit({ type: "setOption", ref: part.ref, key: o.key, value })}
            />
          ))}
          {part.chain && <Chain part={part} />}
          {choosesHost && <Host part={part} hosts={hosts} />}
          <Software part={part} />
        </div>
      )}
      {part.print && <Header part={part} />}
      {part.pins && <ConnectorTable part={part} />}
      {part.companions.map((c, i) => (
        <p key={i} className="text-sm">
          with {c.says} <span className="text-soft">because {c.because}</span>{" "}
          <button
            className="quiet"
            aria-label={`Take out ${c.says}`}
            onClick={() => void edit({ type: "setCompanion", ref: part.ref, key: c.key as CompanionKey, value: null })}
          >
            take out
          </button>
        </p>
      ))}
      {part.notes.length > 0 && (
        <Fold
          className="text-sm"
          title={
            part.certainty === "high" ? (
              "about the numbers"
            ) : (
              <span className="text-risk">sellers differ: data certainty {part.certainty}</span>
            )
          }
        >
          {part.notes.map((n) => (
            <p key={n}>{n}</p>
          ))}
        </Fold>
      )}
      {part.cautions.map((c) => (
        <p key={c} className="text-sm">
          <strong className="text-stop">Take care:</strong> {c}
        </p>
      ))}
    </div>
  );
}
