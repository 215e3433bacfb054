// Rows of numbers with their natural breaks by simple-statistics: classes | values | upper ends. Seeded; ties in cost are avoided by values without pattern.
import { ckmeans } from "simple-statistics";

let seed = 20260301;
const random = () => {
  seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
  return seed / 0x7fffffff;
};
for (let run = 0; run < 160; run++) {
  const n = 12 + Math.floor(random() * 300);
  const values = Array.from(
    { length: n },
    () => Math.round(1e6 * (run % 3 === 0 ? random() : run % 3 === 1 ? random() ** 3 : Math.floor(random() * 4) + random() / 10)) / 1e3,
  );
  const k = 2 + Math.floor(random() * 7);
  console.log(
    [
      k,
      values.join(" "),
      ckmeans(values, k)
        .map((c) => Math.max(...c))
        .join(" "),
    ].join("|"),
  );
}
