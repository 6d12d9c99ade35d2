import http from "node:http";

/** Methods that a route or a page may have; what else HTTP knows never gets as far as a page, which would take it for a bug. */
const KNOWN: ReadonlySet<string> = new Set(["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"]);

/** Answers requests with a method of no use here by 405, before anything looks at them. */
export function refuseOddMethods(): void {
  const { emit } = http.Server.prototype;
  const call = emit as (this: http.Server, event: string | symbol, ...args: unknown[]) => boolean;
  http.Server.prototype.emit = function (this: http.Server, event: string | symbol, ...args: unknown[]) {
    const [request, response] = args as [http.IncomingMessage, http.ServerResponse];
    if (event !== "request" || KNOWN.has(request.method ?? "")) return call.call(this, event, ...args);
    response.writeHead(405, { allow: "GET, HEAD", "content-type": "text/plain", "x-content-type-options": "nosniff" });
    response.end("This method is not served here.");
    return true;
  };
}
