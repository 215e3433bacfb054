// Numbers for people, with their units.
export const metres = (m) => (m < 1000 ? Math.round(m) + " m" : (m / 1000).toFixed(1) + " km");
export const bytes = (n) => (n < 1e6 ? Math.max(1, Math.round(n / 1000)) + " kB" : n < 1e9 ? (n / 1e6).toFixed(1) + " MB" : (n / 1e9).toFixed(1) + " GB");
export const when = (iso) => new Date(iso).toLocaleString([], { dateStyle: "medium", timeStyle: "short" });
