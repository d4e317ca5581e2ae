import { Injectable } from '@angular/core';
import { isProblem, problem, type Problem } from '@zinc/contract';

/** A request that was answered with a problem, or not at all. */
export class ApiError extends Error {
  override name = 'ApiError';
  constructor(
    readonly document: Problem,
    /** Whether nothing answered at all. */
    readonly isCut = false,
  ) {
    super(document.detail);
  }
}

/** What went wrong, in words for people. */
export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong.';
}

/** The problem document behind an error, when there is one. */
export function problemOf(error: unknown): Problem {
  return error instanceof ApiError ? error.document : problem('broken', messageOf(error));
}

const GONE = 'Zinc Shelf does not answer. Your work on this page is still here; try again in a moment.';

/** Speaks to the server. Every failure is an {@link ApiError} with a problem document. */
@Injectable({ providedIn: 'root' })
export class Api {
  get<T>(path: string): Promise<T> {
    return this.call<T>('GET', path);
  }

  send<T>(method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body?: unknown, revision?: number): Promise<T> {
    const headers: Record<string, string> = {};
    if (body !== undefined) headers['content-type'] = 'application/json';
    if (revision !== undefined) headers['if-match'] = `"${revision}"`;
    return this.call<T>(method, path, { body: body === undefined ? undefined : JSON.stringify(body), headers });
  }

  /** All pages of a list, one after the other; `onPage` is told each as it comes. */
  async pages<T>(path: string, onPage: (items: T[]) => void = () => undefined): Promise<T[]> {
    const all: T[] = [];
    for (let after: string | null = ''; after !== null;) {
      const page: { items: T[]; next: string | null } = await this.get(`${path}${after ? `?after=${after}` : ''}`);
      all.push(...page.items);
      onPage(page.items);
      after = page.next;
    }
    return all;
  }

  /** Sends one file, after text fields that say what it is for; `onProgress` is told the share that has gone, 0–1. */
  upload<T>(
    path: string,
    file: File,
    onProgress: (share: number) => void = () => undefined,
    fields: Record<string, string> = {},
  ): Promise<T> {
    return new Promise((resolve, reject) => {
      const request = new XMLHttpRequest();
      request.open('POST', `/api${path}`);
      request.responseType = 'json';
      request.upload.onprogress = e => e.lengthComputable && onProgress(e.loaded / e.total);
      request.onload = () => {
        if (request.status < 300) resolve(request.response as T);
        else
          reject(
            new ApiError(
              isProblem(request.response) ? request.response : problem('broken', `The server answered ${request.status}.`),
            ),
          );
      };
      request.onerror = () => reject(new ApiError(problem('broken', GONE), true));
      const form = new FormData();
      for (const [name, value] of Object.entries(fields)) form.append(name, value);
      form.append('file', file);
      request.send(form);
    });
  }

  private async call<T>(method: string, path: string, init: RequestInit = {}): Promise<T> {
    let response: Response;
    try {
      response = await fetch(`/api${path}`, { method, ...init });
    } catch {
      throw new ApiError(problem('broken', GONE), true);
    }
    if (response.status === 204) return undefined as T;
    const body = (await response.json().catch(() => null)) as unknown;
    if (response.ok) return body as T;
    throw new ApiError(isProblem(body) ? body : problem('broken', `The server answered ${response.status}.`));
  }
}
