import type { Consequences } from "@/core/wires";
import type { Told } from "@/workers/api";
import { SEVERITY_MARK } from "./marks";

const ORDER = ["stop", "fault", "risk", "note"];

function Lines({ brings, nets = true }: { brings: Consequences; nets?: boolean }) {
  const comes = [...brings.comes].sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity));
  return (
    <ul className="mt-1 space-y-0.5">
      {(nets ? brings.joined : []).map((n) => (
        <li key={n.join()}>
          <strong>{n.join(" and ")}</strong> are one then.
        </li>
      ))}
      {(nets ? brings.parted : []).map((n) => (
        <li key={n}>
          <strong>{n}</strong> fall apart.
        </li>
      ))}
      {brings.met.length > 0 && <li>Then served: {brings.met.join(", ")}.</li>}
      {brings.lost.length > 0 && <li>No longer served: {brings.lost.join(", ")}.</li>}
      {comes.slice(0, 8).map((f, i) => (
        <li key={i} className={SEVERITY_MARK[f.severity]}>
          <strong>{f.severity}</strong> {f.message}
        </li>
      ))}
      {comes.length > 8 && <li>and {comes.length - 8} more findings</li>}
      {brings.goes.length > 0 && (
        <li className="text-good">Gone: {[...new Set(brings.goes.map((f) => f.rule))].join(", ")}.</li>
      )}
      <li>
        Then: <strong>{brings.after}</strong>
        {brings.after !== brings.before && <span className="text-soft"> (now: {brings.before})</span>}
      </li>
    </ul>
  );
}

/** What an act would bring, before it is done; or why it can't be, in a sentence. */
export function Consequence({ told }: { told: Told | null }) {
  return (
    <div aria-live="polite" data-testid="told">
      {told && (told.ok ? <Lines brings={told.brings} /> : <p className="mt-1 text-stop">{told.why}</p>)}
    </div>
  );
}
export { Lines };
