/** Entries as a file that a person can keep, or give to whoever looks after the house. */
import type { Entry } from "./db";

const text = (blob: Blob) =>
  new Promise<string>((done) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.readAsDataURL(blob);
  });

export async function saveAsFile(name: string, entries: Entry[]): Promise<void> {
  const written = await Promise.all(
    entries.map(async ({ what, body, run, by, aside }) => ({
      what,
      run,
      by,
      refused: aside ?? [],
      body: what === "picture" ? { ...body, file: await text(body.file) } : body,
    })),
  );
  const document_ = { format: "eight-turn/entries", version: 1, entries: written };
  const file = new Blob([JSON.stringify(document_, null, 2)], { type: "application/json" });
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
