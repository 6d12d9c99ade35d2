/** Runs once when the server starts. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { refuseOddMethods } = await import("./server/odd-methods");
  refuseOddMethods();
  const { closeDatabase } = await import("./server/store");
  process.once("exit", closeDatabase);
  (await import("./server/heavy")).heavy().warm();
}
