// Where the device is and which way it points, as far as the browser tells.
const listeners = new Set();
let fix = null;
let heading = null;
let watching = false;

function tell() {
  if (fix) for (const l of listeners) l(currentFix());
}

/** Tells each fix that comes, and at once what is known. */
export function watchPosition(listener) {
  if (fix) listener(currentFix());
  return whenFixed(listener);
}

/** Tells each fix that comes from now on. */
export function whenFixed(listener) {
  listeners.add(listener);
  if (!watching && navigator.geolocation) {
    watching = true;
    navigator.geolocation.watchPosition(
      (p) => {
        fix = {
          lon: p.coords.longitude,
          lat: p.coords.latitude,
          accuracy: p.coords.accuracy,
          height: p.coords.altitude ?? undefined,
          course: p.coords.heading,
          at: new Date(p.timestamp).toISOString(),
        };
        tell();
      },
      () => tell(),
      { enableHighAccuracy: true, maximumAge: 5000 },
    );
    addEventListener("deviceorientationabsolute", (e) => {
      if (e.absolute && e.alpha !== null) heading = (360 - e.alpha) % 360;
    });
  }
  return () => listeners.delete(listener);
}

/** Draws now, and again with each fix that comes. @param {() => void} draw */
export function drawWithPosition(draw) {
  draw();
  return whenFixed(draw);
}

/** The newest fix, with the direction the device points to if it has a compass (`bearing`), else its course (`heading` is either). */
export function currentFix() {
  return fix && { ...fix, bearing: heading ?? undefined, heading: heading ?? fix.course ?? undefined };
}

/** Minutes that local time is ahead of UTC. */
export const offsetMinutes = () => -new Date().getTimezoneOffset();
