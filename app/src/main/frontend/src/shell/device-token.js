// The token by which the office knows this device and its person. It lives here and in the device's store, in no address and no log.

/** @type {string} */
let token = "";

/** @param {string} [now] "" for none */
export function useToken(now = "") {
  token = now;
}

export const hasToken = () => token !== "";

/** The header that each request of the day book carries. @returns {Record<string, string>} */
export const bearer = () => (token ? { Authorization: "Bearer " + token } : {});
