export interface HttpAnswer<T> {
  status: number;
  body: T & { message?: string };
}

/** One request to this app's own server; a server that is gone answers as status 0 with a sentence. */
export async function http<T>(method: string, path: string, data?: unknown, keepalive = false): Promise<HttpAnswer<T>> {
  try {
    const r = await fetch(path, {
      method,
      keepalive,
      ...(data !== undefined && { body: JSON.stringify(data), headers: { "content-type": "application/json" } }),
    });
    return { status: r.status, body: (await r.json()) as T & { message?: string } };
  } catch {
    return {
      status: 0,
      body: { message: "The app's server does not answer. Start it again; what you see here is kept." } as T & {
        message?: string;
      },
    };
  }
}
