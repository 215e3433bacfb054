// Sends a photo in pieces; it goes on after a cut, also after the page was closed.
import * as tus from "tus-js-client";
import { bearer } from "../shell/device-token.js";
import { say } from "../shell/say.js";
import { Failure } from "../shell/server.js";
import { deviceId } from "./device.js";
import * as store from "./store.js";

/** What a broken upload says. */
function said(status, e) {
  if (status === 401) return say("day.signedOutShort");
  return status === 0 ? say("day.photoBroke") : e.originalResponse.getBody() || say("day.photoNotSent");
}

export async function sendPhoto(photo, progress) {
  const device = await deviceId();
  return new Promise((resolve, reject) => {
    const upload = new tus.Upload(photo.blob, {
      endpoint: "/api/day/uploads",
      uploadUrl: photo.uploadUrl ?? null,
      chunkSize: 1_500_000,
      retryDelays: [0, 1000, 3000],
      storeFingerprintForResuming: false,
      metadata: { photo: photo.id, device },
      headers: bearer(),
      onShouldRetry: (/** @type {any} */ e) => ![401, 403, 404, 409, 422, 429].includes(e.originalResponse?.getStatus()),
      onUploadUrlAvailable: () => store.put("photos", { ...photo, uploadUrl: upload.url }),
      onChunkComplete: (_, accepted, total) => progress(accepted / total),
      onSuccess: () => resolve(undefined),
      onError: (/** @type {any} */ e) => {
        const status = e.originalResponse?.getStatus() ?? 0;
        // an upload that the office does not know any more is begun anew next time
        const forget = [404, 409, 410, 422].includes(status) ? store.put("photos", { ...photo, uploadUrl: undefined }) : Promise.resolve();
        forget.finally(() => reject(new Failure(status, said(status, e))));
      },
    });
    upload.start();
  });
}
