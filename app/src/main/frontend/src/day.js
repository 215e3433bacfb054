// The day book: one page that works without a network. Views are drawn from what the device keeps.
import { loadCatalogue, say } from "./shell/say.js";

addEventListener("error", (e) => failed(e.message));
addEventListener("unhandledrejection", (e) => failed(e.reason?.message ?? String(e.reason)));
/** @param {string} text */
function failed(text) {
  console.error(text);
  const box = /** @type {HTMLElement} */ (document.getElementById("failed"));
  box.hidden = false;
  box.textContent = say("day.failed", { text });
}

if (localStorage.getItem("whinridge-sun") === "true") document.documentElement.classList.add("sun");
if ("serviceWorker" in navigator) navigator.serviceWorker.register("/sw.js", { scope: "/day" });
await loadCatalogue();
const [{ begin, load, tell }, { show }, { watchPosition }, { pairing }, { noteWanted, openWanted }, { contacts }, { openFormFile }] =
  await Promise.all([
    import("./day/book.js"),
    import("./day/frame.js"),
    import("./day/fix.js"),
    import("./day/pairing.js"),
    import("./day/wanted.js"),
    import("./day/contacts.js"),
    import("./day/form-file.js"),
  ]);
watchPosition(() => {});
// a code that is read while the day book is open changes nothing but the address
addEventListener("hashchange", () => /^#(pair|round)=/.test(location.hash) && location.reload());
await noteWanted();
await load();
await pairing(tell);
await begin();
await load();
await show((await openWanted()) || "today");
// the installed day book opens form files
/** @type {any} */ (window).launchQueue?.setConsumer(async ({ files }) => files[0] && openFormFile(await files[0].getFile()));
await contacts();
