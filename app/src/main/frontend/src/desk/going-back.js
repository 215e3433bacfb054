// The page that waits while the server starts again.

const EVERY_MS = 700;
/** The server has ended by then, also when it waits for what is under way. */
const DOWN_BY_MS = 75_000;

const pause = () => new Promise((over) => setTimeout(over, EVERY_MS));

async function isThere() {
  try {
    return (await fetch("/actuator/health/readiness", { cache: "no-store" })).ok;
  } catch {
    return false; // it is down, which is what is waited for
  }
}

/** Leads back to the keeper's page once the server was away and is there again. */
export async function goingBackPage() {
  const begun = Date.now();
  while ((await isThere()) && Date.now() - begun < DOWN_BY_MS) await pause();
  while (!(await isThere())) await pause();
  location.href = "/keeper";
}
