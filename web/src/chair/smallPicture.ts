const longest = 1280; // px of the longer side
const quality = 0.8;

/**
 * A picture made small: drawn anew, so that nothing is left in it of what a camera writes beside it,
 * such as where it was taken.
 */
export async function smallPicture(file: Blob): Promise<Blob> {
  const full = await createImageBitmap(file);
  const scale = Math.min(1, longest / Math.max(full.width, full.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(full.width * scale));
  canvas.height = Math.max(1, Math.round(full.height * scale));
  canvas.getContext("2d")?.drawImage(full, 0, 0, canvas.width, canvas.height);
  full.close();
  return new Promise((resolve, reject) => {
    canvas.toBlob(
      (made) => (made ? resolve(made) : reject(new Error("This picture cannot be read."))),
      "image/jpeg",
      quality,
    );
  });
}
