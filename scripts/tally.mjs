// Prints "passed failed skipped" of a Vitest JSON report; a run that failed without failing a test counts as one failure.
import fs from "node:fs";

const [file, status] = process.argv.slice(2);
try {
  const r = JSON.parse(fs.readFileSync(file, "utf8"));
  const failed =
    r.numFailedTests + r.testResults.filter((t) => t.status === "failed" && !t.assertionResults.length).length;
  console.log(r.numPassedTests, failed || (status === "0" ? 0 : 1), r.numPendingTests + r.numTodoTests);
} catch {
  console.log(0, 1, 0);
}
