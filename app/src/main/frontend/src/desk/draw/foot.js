// The foot of a page that writes to a layer.
import { say } from "../../shell/say.js";
import { html } from "../../shell/view.js";

/**
 * @param {{count: number, canUndo: boolean, told: string, failure?: string, busy: boolean, write: () => void, undo: () => void, label: import("../../shell/say.js").MessageKey}} of
 *   `label` says how many are written
 */
export function writingFoot({ count, canUndo, told, failure = "", busy, write, undo, label }) {
  const said = count === 0 ? say("desk.draw.nothingYet") : say(label, { n: count });
  return html`<div class="stay">
    <div class="flex gap-2">
      <button class="main" type="button" id="write" ?disabled=${count === 0 || busy} @click=${write}>${said}</button>
      <button type="button" id="undo-draw" ?disabled=${!canUndo} @click=${undo}>${say("do.undo")}</button>
    </div>
    <p class="problem mt-2" role="alert" ?hidden=${!failure}>${failure}</p>
    <p role="status" id="draw-said" class="mt-1">${told}</p>
  </div>`;
}
