/**
 * The tablet's camera before a tag. The browser's own reader of codes where there is one; a decoder of ours
 * to ship where not.
 */

/** The block whose address a code holds; null where it is none. Whose house it was made in is found out there. */
export function blockOf(text: string): string | null {
  return (
    /\/store\/([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})$/i.exec(
      text.trim(),
    )?.[1] ?? null
  );
}

/** Why there is no camera here, in a sentence; null where there is one to try. */
export const whatCannotBeSeen = (): string | null =>
  // over plain http a browser has no such thing, whatever its types say
  (navigator.mediaDevices as MediaDevices | undefined)
    ? null
    : "Without a secure address this browser gives no camera: type what stands on the tag. The Kitchen says how to open the house by https.";

interface Seen {
  read: (text: string) => void;
  failed: (says: string) => void;
}

interface Detector {
  detect: (from: HTMLVideoElement) => Promise<{ rawValue: string }[]>;
}

type Read = (video: HTMLVideoElement) => Promise<string | null>;

const EVERY_MS = 250;
const WIDEST = 720;

/** The browser's own reader, where it reads such codes. */
async function ownReader(): Promise<Read | null> {
  const Own = (
    globalThis as unknown as {
      BarcodeDetector?: {
        new (of: { formats: string[] }): Detector;
        getSupportedFormats: () => Promise<string[]>;
      };
    }
  ).BarcodeDetector;
  if (!Own) return null;
  const reads = await Own.getSupportedFormats().catch(() => [] as string[]);
  if (!reads.includes("qr_code")) return null;
  const own = new Own({ formats: ["qr_code"] });
  return async (video) => (await own.detect(video))[0]?.rawValue ?? null;
}

async function keptReader(): Promise<Read> {
  const { default: decode } = await import("qr/decode.js");
  const canvas = document.createElement("canvas");
  return async (video) => {
    const by = Math.min(1, WIDEST / video.videoWidth);
    canvas.width = Math.round(video.videoWidth * by);
    canvas.height = Math.round(video.videoHeight * by);
    const paper = canvas.getContext("2d", { willReadFrequently: true });
    if (!paper || canvas.width === 0) return null;
    paper.drawImage(video, 0, 0, canvas.width, canvas.height);
    try {
      return decode(paper.getImageData(0, 0, canvas.width, canvas.height));
    } catch {
      return null; // no code in this picture
    }
  };
}

/** Look through the camera until something is read; gives what ends it. */
export function watch(video: HTMLVideoElement, { read, failed }: Seen): () => void {
  let stream: MediaStream | undefined;
  let over = false;
  let soon: ReturnType<typeof setTimeout> | undefined;
  const begin = async () => {
    try {
      stream = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: "environment" },
      });
    } catch {
      failed("The camera may not be used here. Allow it in the browser, or type the mark.");
      return;
    }
    if (over) return end();
    video.srcObject = stream;
    await video.play().catch(() => undefined);
    const reader = (await ownReader()) ?? (await keptReader());
    let last = "";
    const look = async () => {
      if (over) return;
      const text = video.videoWidth > 0 ? await reader(video).catch(() => null) : null;
      if (text && text !== last && !over) {
        last = text;
        read(text);
      }
      soon = setTimeout(look, EVERY_MS);
    };
    await look();
  };
  const end = () => {
    for (const track of stream?.getTracks() ?? []) track.stop();
  };
  void begin();
  return () => {
    over = true;
    clearTimeout(soon);
    end();
  };
}
