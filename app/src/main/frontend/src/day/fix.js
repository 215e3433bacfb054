// Where the device is and which way it points, as far as the browser tells.
const listeners = new Set();
let fix = null;
let heading = null;
let watching = false;

function tell() {
  if (fix) for (const l of listeners) l(currentFix());
}

export function watchPosition(listener) {
  listeners.add(listener);
  if (fix) listener(currentFix());
  if (!watching && navigator.geolocation) {
    watching = true;
    navigator.geolocation.watchPosition(
      (p) => {
        fix = {
          lon: p.coords.longitude,
          lat: p.coords.latitude,
          accuracy: p.coords.accuracy,
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

/** The newest fix, with the direction the device points to if it has a compass, else its course. */
export function currentFix() {
  return fix && { ...fix, heading: heading ?? fix.course ?? undefined };
}

/** Minutes that local time is ahead of UTC. */
export const offsetMinutes = () => -new Date().getTimezoneOffset();
