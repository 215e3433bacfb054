// Which device this is.
import { say } from "../shell/say.js";
import * as store from "./store.js";

export const deviceName = () => localStorage.getItem("whinridge-device") ?? say("day.thisDevice");

/** Made once with the store, so that it lasts as long as what the store keeps. */
export async function deviceId() {
  let id = await store.get("meta", "device-id");
  if (!id) await store.put("meta", (id = crypto.randomUUID()), "device-id");
  return id;
}
