import { Upload } from 'tus-js-client';

export type Sending = { name: string; share: number; state: 'sending' | 'inspecting' | 'imported' | 'failed'; problem: string | null; clipId: string | null };

/** Files on their way to the server; each goes on where it stopped after any break. */
class Uploads {
  all = $state<Sending[]>([]);
  /** Counts files taken, so that lists know when to read again. */
  taken = $state(0);

  send(file: File) {
    this.all = [...this.all, { name: file.name, share: 0, state: 'sending', problem: null, clipId: null }];
    const at = this.all.length - 1;
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      chunkSize: 16 * 1024 * 1024,
      retryDelays: [0, 500, 1000, 2000, 4000, 8000],
      metadata: { filename: file.name },
      removeFingerprintOnSuccess: true,
      onProgress: (sent, of) => Object.assign(this.all[at], { share: sent / of, state: sent === of ? 'inspecting' : 'sending' }),
      onSuccess: ({ lastResponse }) => {
        Object.assign(this.all[at], { share: 1, state: 'imported', clipId: decodeURIComponent(lastResponse.getHeader('X-Clip') ?? '') || null });
        this.taken++;
      },
      onError: (failure) => Object.assign(this.all[at], { state: 'failed', problem: words(failure) })
    });
    void upload.findPreviousUploads().then((previous) => {
      if (previous.length) upload.resumeFromPreviousUpload(previous[0]);
      upload.start();
    });
  }
}

function words(failure: Error): string {
  const body = (failure as { originalResponse?: { getBody(): string } }).originalResponse?.getBody();
  try {
    return JSON.parse(body ?? '').detail ?? failure.message;
  } catch {
    return 'The server did not answer. Choose the same file again to go on where it stopped.';
  }
}

export const uploads = new Uploads();
