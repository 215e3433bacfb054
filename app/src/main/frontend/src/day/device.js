// Which device this is.
import { say } from "../shell/say.js";
import * as store from "./store.js";

/** What the browser tells of what it runs on, until somebody gives the device a name. */
const platform = () => {
  const told =
    /** @type {any} */ (navigator).userAgentData?.platform || /Android|iPhone|iPad|Windows|Mac|Linux/.exec(navigator.userAgent)?.[0];
  return told ? say("day.deviceOn", { platform: told }) : say("day.thisDevice");
};

export const deviceName = () => localStorage.getItem("whinridge-device") ?? platform();

/** @param {string} name */
export function setDeviceName(name) {
  if (name.trim()) localStorage.setItem("whinridge-device", name.trim());
  else localStorage.removeItem("whinridge-device");
}

/** Made once with the store, so that it lasts as long as what the store keeps. */
export async function deviceId() {
  let id = await store.get("meta", "device-id");
  if (!id) await store.put("meta", (id = crypto.randomUUID()), "device-id");
  return id;
}
