// Requests to the server; a failure is an Error whose message is fit to be shown.
export class Failure extends Error {
  constructor(status, message) {
    super(message);
    this.status = status;
  }
}

export async function request(path, options = {}) {
  let answer;
  try {
    answer = await fetch(path, { credentials: "same-origin", ...options, headers: { Accept: "application/json, application/geo+json, */*;q=0.1", ...options.headers } });
  } catch {
    throw new Failure(0, "There is no link to the office right now. Nothing is lost; try again when there is.");
  }
  if (answer.ok) return answer;
  let message = "The office answered with an error (" + answer.status + ").";
  try {
    message = (await answer.json()).message ?? message;
  } catch {
    // the answer was not from Whinridge, a proxy's page perhaps: the status says what is known
  }
  throw new Failure(answer.status, message);
}

/** The header by which a desk page shows that a request is its own. */
export function token() {
  const meta = (name) => document.querySelector(`meta[name="${name}"]`).content;
  return { [meta("csrf-header")]: meta("csrf-token") };
}

/** POST of JSON from a desk page, with the page's own token. */
export async function post(path, body) {
  const answer = await request(path, { method: "POST", body: JSON.stringify(body), headers: { "Content-Type": "application/json", ...token() } });
  return answer.json();
}
