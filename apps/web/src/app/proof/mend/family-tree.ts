import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { FamilyMember } from '@zinc/contract';
import { KIN } from '../../shared/kin';
import { Thumb } from '../../shared/thumb';

export interface Branch {
  member: FamilyMember;
  depth: number;
}

/** A family in the order a tree is read: every proof, then what was made from it, each set in under its parent. */
export function branchesOf(family: readonly FamilyMember[]): Branch[] {
  const out: Branch[] = [];
  const walk = (parentId: string | null, depth: number): void => {
    for (const member of family.filter(m => (depth === 0 ? m === family[0] : m.parentId === parentId))) {
      out.push({ member, depth });
      if (member.proofId && depth < 60) walk(member.proofId, depth + 1);
    }
  };
  walk(null, 0);
  return out;
}

/** What a proof comes from and what was made from it. */
@Component({
  selector: 'zs-family-tree',
  imports: [RouterLink, Thumb],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (branches().length < 2) {
      <p class="dim">Nothing has been made from it yet.</p>
    } @else {
      <ul>
        @for (b of branches(); track b.member.proofId ?? $index) {
          <li [style.margin-left.px]="Math.min(b.depth, 6) * 18" [class.here]="b.member.proofId === here()">
            @if (b.member.proofId && b.member.pictureSha; as sha) {
              <a
                [routerLink]="['/review/proof', b.member.proofId]"
                [attr.aria-current]="b.member.proofId === here() ? 'page' : null"
              >
                <zs-thumb [sha]="sha" alt="" [side]="160" [width]="48" [height]="48" />
                <span>take {{ b.member.take }}{{ said(b.member) }}</span>
              </a>
            } @else {
              <span class="box dim">{{ b.member.state }}</span>
              <span>take {{ b.member.take }}{{ said(b.member) }}</span>
            }
          </li>
        }
      </ul>
    }
  `,
  styles: `
    ul {
      display: grid;
      gap: 5px;
    }
    li,
    a {
      display: flex;
      gap: 9px;
      align-items: center;
    }
    li {
      padding-left: 7px;
      border-left: 2px solid var(--zinc);
    }
    li.here {
      border-left-color: var(--vermilion);
      font-weight: 680;
    }
    zs-thumb,
    .box {
      width: 48px;
      height: 48px;
    }
    .box {
      display: grid;
      place-items: center;
      font-size: 11px;
      background: var(--well);
    }
  `,
})
export class FamilyTree {
  readonly family = input.required<readonly FamilyMember[]>();
  readonly here = input.required<string>();
  readonly Math = Math;
  readonly branches = computed(() => branchesOf(this.family()));

  said({ how, distance }: FamilyMember): string {
    if (!how) return ', the first';
    return `, ${KIN[how].long}${distance === null ? '' : ` ${distance} away`}`;
  }
}
