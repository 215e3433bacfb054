// Pictures become JPEG before anything is written into them.

/**
 * The picture as JPEG bytes; other kinds are drawn anew, since a geotag has a fixed place in JPEG only, and so is one that is larger than its form asks.
 * @param {Blob} file @param {number} most the longer side in pixels, 0 for as it is
 */
export async function asJpeg(file, most) {
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  const jpeg = head[0] === 0xff && head[1] === 0xd8;
  if (jpeg && !most) return file;
  const bitmap = await createImageBitmap(file);
  const longer = Math.max(bitmap.width, bitmap.height);
  if (jpeg && longer <= most) return file;
  const scale = most ? Math.min(1, most / longer) : 1;
  const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale));
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: "image/jpeg", quality: 0.92 });
}
