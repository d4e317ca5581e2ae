import { ChangeDetectionStrategy, Component, computed, inject, input, model, output, signal } from '@angular/core';
import { commentInputSchema, ValidationError, type Comment } from '@zinc/contract';
import { uuidv7 } from 'uuidv7';
import { Api, problemOf } from '../shared/api';
import { writtenMoment } from '../shared/dates';

/** A place in a picture, parts of its frame. */
export interface Place {
  x: number;
  y: number;
}

/** Threads of a proof in the order they were begun, each with its answers; numbered as their pins are. */
export interface Thread {
  number: number;
  comment: Comment;
  answers: Comment[];
}

export function threadsOf(comments: readonly Comment[]): Thread[] {
  return comments
    .filter(c => !c.answers)
    .map((comment, i) => ({ number: i + 1, comment, answers: comments.filter(c => c.answers === comment.id) }));
}

/** What is said of a proof: written, answered, closed and opened again. A place is chosen on the picture. */
@Component({
  selector: 'zs-comments',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (t of threads(); track t.comment.id) {
        <li [class.closed]="t.comment.closedAt">
          <span class="pin" aria-hidden="true">{{ t.number }}</span>
          <div>
            <p class="words">{{ t.comment.words }}</p>
            <p class="dim">
              {{ t.comment.person }}, {{ moment(t.comment.at) }}{{ t.comment.x === null ? ', of the whole' : '' }}
            </p>
            @for (a of t.answers; track a.id) {
              <p class="words answer">{{ a.words }}</p>
              <p class="dim answer">{{ a.person }}, {{ moment(a.at) }}</p>
            }
            @if (t.comment.closedAt) {
              <p class="dim">
                closed by {{ t.comment.closedBy }}
                <button class="b small quiet" type="button" (click)="close(t.comment, false)">Open again</button>
              </p>
            } @else if (answering() === t.comment.id) {
              <form (submit)="$event.preventDefault(); send(answer.value, t.comment.id)">
                <textarea #answer class="t" rows="2" [attr.aria-label]="'Answer to comment ' + t.number"></textarea>
                <span class="row">
                  <button class="b small main" type="submit" [disabled]="busy()">Answer</button>
                  <button class="b small" type="button" (click)="answering.set(null)">Leave it</button>
                </span>
              </form>
            } @else {
              <span class="row">
                <button class="b small" type="button" (click)="answering.set(t.comment.id)">Answer</button>
                <button class="b small" type="button" (click)="close(t.comment, true)">Close</button>
              </span>
            }
          </div>
        </li>
      } @empty {
        <li class="dim">Nothing is said of it yet.</li>
      }
    </ol>
    <form (submit)="$event.preventDefault(); send(words(), null)">
      <label for="c-words">{{ place() ? 'Of the place that is marked' : 'Of the whole picture' }}</label>
      <textarea
        class="t"
        id="c-words"
        rows="3"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
        [attr.aria-invalid]="fault() !== ''"
      ></textarea>
      @if (fault()) {
        <p class="wrong" role="alert">{{ fault() }}</p>
      }
      <span class="row">
        <button class="b main" type="submit" [disabled]="busy()">Say it</button>
        @if (place()) {
          <button class="b small" type="button" (click)="place.set(null)">Of the whole</button>
        } @else {
          <span class="hint">Click a place in the picture, or press <kbd>C</kbd>, to pin it there.</span>
        }
      </span>
    </form>
  `,
  styles: `
    ol {
      display: grid;
      gap: 10px;
      margin-bottom: 12px;
    }
    li {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr);
      gap: 8px;
    }
    li.dim {
      display: block;
    }
    .pin {
      width: 20px;
      height: 20px;
      font-weight: 700;
      line-height: 20px;
      text-align: center;
      color: var(--white);
      background: var(--vermilion);
    }
    .closed .pin {
      background: #55585a;
    }
    .words {
      overflow-wrap: anywhere;
      white-space: pre-wrap;
    }
    .answer {
      padding-left: 10px;
      border-left: 2px solid var(--hair);
    }
    form {
      display: grid;
      gap: 6px;
    }
  `,
})
export class Comments {
  private readonly api = inject(Api);
  readonly proofId = input.required<string>();
  readonly comments = input.required<readonly Comment[]>();
  readonly place = model<Place | null>(null);
  readonly said = output<Comment>();
  readonly threads = computed(() => threadsOf(this.comments()));
  readonly words = signal('');
  readonly answering = signal<string | null>(null);
  readonly fault = signal('');
  readonly busy = signal(false);
  readonly moment = writtenMoment;

  async send(words: string, answers: string | null): Promise<void> {
    this.fault.set('');
    this.busy.set(true);
    const at = answers ? null : this.place();
    try {
      const body = await commentInputSchema.validate({
        id: uuidv7(),
        proofId: this.proofId(),
        answers,
        words,
        x: at?.x ?? null,
        y: at?.y ?? null,
      });
      this.said.emit(await this.api.send<Comment>('POST', '/comments', body));
      if (answers) this.answering.set(null);
      else {
        this.words.set('');
        this.place.set(null);
      }
    } catch (error) {
      this.fault.set(error instanceof ValidationError ? error.message : problemOf(error).detail);
    } finally {
      this.busy.set(false);
    }
  }

  async close(comment: Comment, closed: boolean): Promise<void> {
    this.fault.set('');
    try {
      this.said.emit(await this.api.send<Comment>('PUT', `/comments/${comment.id}/closed`, { closed }));
    } catch (error) {
      this.fault.set(problemOf(error).detail);
    }
  }
}
