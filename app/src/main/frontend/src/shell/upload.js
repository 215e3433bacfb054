// A file sent in pieces from a desk page: it goes on after a cut, and a refusal has words.
import { Upload } from "tus-js-client";
import { say } from "./say.js";
import { token } from "./server.js";

const CHUNK = 4 * 1024 * 1024;

/** What a refusal says, or the failure itself. @param {any} e */
export function refusal(e) {
  if (!e.originalResponse) return e.message;
  const said = e.originalResponse.getBody() || say("server.failed", { status: String(e.originalResponse.getStatus()) });
  return say("upload.refused", { why: said });
}

/**
 * An upload that was not started yet, and the promise of its end.
 * @param {File} file
 * @param {{endpoint: string, metadata: Record<string, string>, told: (accepted: number, of: number) => void}} how
 */
export function upload(file, { endpoint, metadata, told }) {
  /** @type {Upload} */
  let going;
  /** @type {Promise<{url: string}>} */
  const done = new Promise((over, failed) => {
    going = new Upload(file, {
      endpoint,
      metadata,
      chunkSize: CHUNK,
      retryDelays: [500, 1000, 3000, 5000, 10000, 20000],
      headers: token(),
      storeFingerprintForResuming: false,
      onChunkComplete: (_, accepted, of) => told(accepted, of ?? file.size),
      onError: (e) => failed(new Error(refusal(e))),
      onSuccess: () => over({ url: going.url ?? "" }),
    });
  });
  return { start: () => going.start(), pause: () => going.abort(), done };
}
