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

/** The newest fix, with the direction the device points to if it has a compass (`bearing`), else its course (`heading` is either). */
export function currentFix() {
  return fix && { ...fix, bearing: heading ?? undefined, heading: heading ?? fix.course ?? undefined };
}

/** Minutes that local time is ahead of UTC. */
export const offsetMinutes = () => -new Date().getTimezoneOffset();
