/** Reads a file as the server wants it. */
export function base64(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^data:[^,]*,/, ""));
    reader.onerror = () => reject(new Error(`“${file.name}” cannot be read from this device.`));
    reader.readAsDataURL(file);
  });
}

/** The kinds of files that can be read. */
export const scoreFiles = ".musicxml,.xml,.mxl,.abc,.mid,.midi";

const mostBytes = 12 * 1024 * 1024;

/** Refuses a file that is missing or too big before it is sent. */
export function checked(file: unknown): File {
  if (!(file instanceof File) || file.name === "") throw new Error("Choose a file first.");
  if (file.size === 0) throw new Error(`“${file.name}” is empty. Nothing was changed.`);
  if (file.size > mostBytes)
    throw new Error(
      `“${file.name}” has ${Math.round(file.size / 1024 / 1024)} MB; a score may have 12 MB at most. Nothing was changed.`,
    );
  return file;
}
