/** What somebody may do here. */

/** From least to most. */
export const ROLES = ['assistant', 'coach', 'owner'] as const;

export type Role = (typeof ROLES)[number];

/** Whether a role does what another one may do. */
export const reaches = (role: Role, wanted: Role): boolean =>
  ROLES.indexOf(role) >= ROLES.indexOf(wanted);

/** Read on the page where people are added, and where somebody is refused. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'everything, and says who else comes in',
  coach: 'films, judges, gives work, keeps records',
  assistant: 'films on a phone; sees no leaks, no notes and no injuries, and deletes nothing',
};

const WHO: Readonly<Record<Role, string>> = {
  owner: 'the owner',
  coach: 'a coach',
  assistant: 'somebody who is signed in',
};

/** Why somebody may not do what is for this role. */
export const onlyFor = (least: Role) => ({
  happened: `Only ${WHO[least]} may do this.`,
  safe: 'Nothing was changed.',
});

/** Somebody who asks, and what they may do. */
export interface Asker {
  /** Null for whoever sits at a machine on which nobody signs in. */
  readonly personId: string | null;
  readonly name: string;
  readonly role: Role;
  /** By what they are known, so that it can be ended; null as above. */
  readonly signInId: string | null;
  /** Known only by a paired phone, without a passcode. */
  readonly isByPhone: boolean;
}
