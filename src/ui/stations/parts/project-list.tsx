"use client";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { ConnectorPins } from "@/core/parts/catalogue";
import { PIN_ROLES, type PinRole } from "@/core/parts/catalogue/roles";
import type { CompanionKey } from "@/core/project";
import type { PartView } from "@/workers/view";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { OptionField } from "./options";
import { Checkbox } from "@/ui/shared/checkbox";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";

function Label({ part }: { part: PartView }) {
  const { edit } = useProject();
  const [text, setText] = useState(part.label);
  useEffect(() => setText(part.label), [part.label]);
  const done = () => text.trim() !== part.label && void edit({ type: "setLabel", ref: part.ref, label: text.trim() });
  return (
    <input
      aria-label={`Name of ${part.ref}`}
      className="-ml-2 w-full border-transparent! bg-transparent! font-bold hover:border-line! focus:border-soft!"
      value={text}
      maxLength={60}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === "Enter" && done()}
    />
  );
}

/** Names and roles of a connector's pins: what the other end is, pin by pin. */
function ConnectorTable({ part }: { part: PartView }) {
  const { run } = useProject();
  const pins = part.pins!;
  // Open while nothing is said; after that it stays as the person leaves it.
  const [fresh] = useState(Object.keys(pins.given).length === 0);
  // Changes the project as it is when the step runs: two quick changes are both kept.
  const put = (label: string, change: (was: ConnectorPins[string] | undefined) => ConnectorPins[string] | undefined) =>
    void run(async (p) => {
      const next = { ...(p.parts.find((x) => x.ref === part.ref)?.options?.[pins.key] as ConnectorPins | undefined) };
      const value = change(next[label]);
      if (value === undefined) delete next[label];
      else next[label] = value;
      const given = Object.keys(next).length ? next : null;
      return core().edit(p, { type: "setOption", ref: part.ref, key: pins.key, value: given });
    });
  return (
    <Fold className="mt-1 text-sm" open={fresh} title="what its pins are">
      <table className="plain mt-1 w-auto!" aria-label={`Pins of ${part.label}`}>
        <thead>
          <tr>
            <th>pin</th>
            <th>name</th>
            <th>for the board it is</th>
            <th>volts</th>
          </tr>
        </thead>
        <tbody>
          {pins.labels.map((label) => {
            const now = pins.given[label];
            const unused = now === null;
            return (
              <tr key={label}>
                <td className="num">{label}</td>
                <td>
                  <input
                    aria-label={`Name of pin ${label}`}
                    className="w-24"
                    defaultValue={now?.name ?? ""}
                    disabled={unused}
                    onBlur={(e) => {
                      const name = e.target.value.trim().replace(/\s+/g, "_");
                      if (name !== (now?.name ?? ""))
                        put(label, (was) => ({ ...(was ?? {}), ...(name ? { name } : { name: undefined }) }));
                    }}
                  />
                </td>
                <td>
                  <Select
                    label={`Role of pin ${label}`}
                    value={unused ? "unused" : (now?.role ?? "")}
                    options={[
                      { value: "", name: "not said yet" },
                      { value: "unused", name: "not used" },
                      ...PIN_ROLES.map((r) => ({ value: r as string, name: r })),
                    ]}
                    onChange={(role) =>
                      put(label, (was) =>
                        role === "unused" ? null : role ? { ...(was ?? {}), role: role as PinRole } : undefined,
                      )
                    }
                  />
                </td>
                <td>
                  {now?.role && now.role !== "ground" && (
                    <input
                      aria-label={`Volts of pin ${label}`}
                      className="num w-16"
                      inputMode="decimal"
                      defaultValue={now.V ?? 5}
                      onBlur={(e) => {
                        const V = Number(e.target.value.replace(",", "."));
                        if (V > 0 && V <= 60 && V !== (now.V ?? 5)) put(label, (was) => ({ ...(was ?? {}), V }));
                      }}
                    />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Fold>
  );
}

function Chain({ part }: { part: PartView }) {
  const { run } = useProject();
  const chain = part.chain!;
  const id = `${part.ref}-chain`;
  return (
    <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
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
    </label>
  );
}

/** Which of several boards a part hangs on. */
function Host({ part, hosts }: { part: PartView; hosts: PartView[] }) {
  const { run } = useProject();
  const id = `${part.ref}-host`;
  return (
    <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
      <span className="text-soft">Hangs on</span>
      <Select
        id={id}
        value={part.host ?? ""}
        options={hosts.map((h) => ({ value: h.ref, name: `${h.label === h.ref ? h.name : h.label} (${h.ref})` }))}
        onChange={(host) => void run(async (p) => core().host(p, part.ref, host))}
      />
    </label>
  );
}

/** Buses of a part that the program may do itself, and a way to take that back. */
function Software({ part }: { part: PartView }) {
  const { edit } = useProject();
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

function Row({ part }: { part: PartView }) {
  const { edit, lit, view } = useProject();
  const hosts = view.parts.filter((p) => p.isHost);
  const choosesHost = hosts.length > 1 && !part.isHost && part.kind !== "supply";
  const on = [...lit].some((x) => x === part.ref || x.startsWith(`${part.ref}.`));
  return (
    <li className={`border-b border-line py-2 ${on ? "bg-wash" : ""}`} data-testid={`part-${part.ref}`}>
      <div className="grid grid-cols-[2.5rem_minmax(8rem,12rem)_1fr_auto] items-baseline gap-x-3">
        <span className="num text-soft">{part.ref}</span>
        <Label part={part} />
        <Link className="min-w-0 grow text-soft hover:text-accent" href={`/parts/${part.part}`}>
          {part.name}
          {part.own && <span className="ml-2 text-sm text-accent">own</span>}
        </Link>
        <button
          className="quiet text-sm text-soft"
          aria-label={`Remove ${part.label}`}
          onClick={() => void edit({ type: "removePart", ref: part.ref })}
        >
          remove
        </button>
      </div>
      <div className="ml-13">
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
        {part.pins && <ConnectorTable part={part} />}
        {part.companions.map((c, i) => (
          <p key={i} className="text-sm">
            with {c.says} <span className="text-soft">because {c.because}</span>{" "}
            <button
              className="quiet"
              aria-label={`Take out ${c.says}`}
              onClick={() =>
                void edit({ type: "setCompanion", ref: part.ref, key: c.key as CompanionKey, value: null })
              }
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
    </li>
  );
}

/** The parts of this project, with their names, options, what stands around them and what to take care of. */
export function ProjectList() {
  const { view, project } = useProject();
  return (
    <section aria-label="Parts of this project">
      <h2 className="text-lg">In this project</h2>
      <ul className="border-t border-ink">
        {view.parts.map((p) => (
          <Row key={p.ref} part={p} />
        ))}
      </ul>
      {project.parts.length === 0 && (
        <p className="mt-3 max-w-md">
          Nothing yet. A first try: type <em>board</em> and press Enter, then <em>usb port</em>, then <em>red led</em>.
          That is a lamp on a pin, planned and checked. Or paste a parts list.
        </p>
      )}
    </section>
  );
}
