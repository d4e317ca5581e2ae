import { lookup } from 'node:dns';
import http from 'node:http';
import https from 'node:https';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { ProblemError } from '../http/problemError.ts';
import { MOST_BYTES } from './upload.ts';

const MOST_REDIRECTS = 3;
const MOST_MS = 20_000;

/** What a fetch may do; tests loosen it, nothing else does. */
export interface FetchLimits {
  mayReach(address: string): boolean;
  bytes: number;
  milliseconds: number;
}

/** Whether an address is one of the public internet: not of this machine, of a private or link-local network, nor reserved. */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return false;
  return ipaddr.process(address).range() === 'unicast';
}

const LIMITS: FetchLimits = { mayReach: isPublicAddress, bytes: MOST_BYTES, milliseconds: MOST_MS };

class InnerAddressError extends Error {}

const refused = (detail: string): ProblemError => new ProblemError('notPossible', detail, { field: 'url' });

/** Looks a name up and gives only an address that may be reached, so that a name cannot change its mind between check and connection. */
function guardedLookup(mayReach: FetchLimits['mayReach']): LookupFunction {
  return (hostname, options, callback) =>
    lookup(hostname, { ...options, all: true }, (error, addresses) => {
      if (error) return callback(error, '', 0);
      const bad = addresses.find(a => !mayReach(a.address));
      if (bad || addresses.length === 0) return callback(new InnerAddressError(), '', 0);
      if (options.all) callback(null, addresses);
      else callback(null, addresses[0].address, addresses[0].family);
    });
}

function check(text: string, limits: FetchLimits): URL {
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    throw refused(`Got “${text.slice(0, 80)}”; wanted a whole web address that begins with https://.`);
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw refused(`Only http and https addresses can be fetched, not ${url.protocol.replace(':', '')}.`);
  if (url.username || url.password) throw refused('The address holds a name or a password. Use one without.');
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (ipaddr.isValid(host) && !limits.mayReach(host)) throw inner(url);
  return url;
}

const inner = (url: URL): ProblemError =>
  refused(`${url.hostname} is an inner address. Only pictures on public addresses can be fetched.`);

type Answer = { redirect: string } | { bytes: Buffer };

function ask(url: URL, limits: FetchLimits, signal: AbortSignal): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = (url.protocol === 'https:' ? https : http).get(
      url,
      { lookup: guardedLookup(limits.mayReach), signal, headers: { accept: 'image/*', 'accept-encoding': 'identity' } },
      response => {
        const { statusCode = 0, headers } = response;
        const fail = (detail: string): void => {
          response.destroy();
          reject(refused(detail));
        };
        if (statusCode >= 300 && statusCode < 400 && headers.location) {
          response.destroy();
          return resolve({ redirect: headers.location });
        }
        if (statusCode !== 200) return fail(`${url.hostname} answered ${statusCode} instead of a picture.`);
        const large = `The file is larger than ${Math.round(limits.bytes / 1024 / 1024)} MB.`;
        if (Number(headers['content-length'] ?? 0) > limits.bytes) return fail(large);
        const parts: Buffer[] = [];
        let size = 0;
        response.on('data', (part: Buffer) => {
          size += part.length;
          if (size > limits.bytes) return fail(large);
          parts.push(part);
        });
        response.on('end', () =>
          response.complete ? resolve({ bytes: Buffer.concat(parts) }) : fail('The picture was cut short.'),
        );
        response.on('error', reject);
      },
    );
    request.on('error', reject);
  });
}

/**
 * Fetches a picture from a public web address: http or https only, every address on the way checked when it is connected to, a few redirects,
 * limited in size and time. Throws `notPossible` with the reason.
 */
export async function fetchPicture(text: string, limits: FetchLimits = LIMITS): Promise<{ name: string; bytes: Buffer }> {
  const signal = AbortSignal.timeout(limits.milliseconds);
  let url = check(text, limits);
  for (let hops = 0; ; hops++) {
    let answer: Answer;
    try {
      answer = await ask(url, limits, signal);
    } catch (error) {
      if (error instanceof ProblemError) throw error;
      if (error instanceof InnerAddressError) throw inner(url);
      if (signal.aborted) throw refused(`${url.hostname} took longer than ${limits.milliseconds / 1000} s.`);
      throw refused(`${url.hostname} cannot be reached: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}.`);
    }
    if ('bytes' in answer) {
      const last = decodeURIComponent(url.pathname.split('/').at(-1) ?? '').replace(/\.[a-z0-9]+$/i, '');
      return { name: last.slice(0, 120) || url.hostname, bytes: answer.bytes };
    }
    if (hops >= MOST_REDIRECTS) throw refused(`${url.hostname} passes the request on more than ${MOST_REDIRECTS} times.`);
    url = check(new URL(answer.redirect, url).href, limits);
  }
}
