import { IsBoolean, IsIn, IsOptional, IsString, Length } from 'class-validator';

/** What somebody may do, the most first: a manager all that an operator may, an operator all that a member may. */
export const roles = ['manager', 'operator', 'member'] as const;
export type Role = (typeof roles)[number];

/** Somebody of the shop. */
export interface PersonAnswer {
  id: string;
  name: string;
  role: Role;
  /** When they came, as ISO 8601 in UTC. */
  since: string;
  /** Since when they are no longer of the shop; null while they are. */
  leftAt: string | null;
}

/** Who is signed in with the cookie that was sent. */
export interface SessionAnswer {
  person: PersonAnswer | null;
  /** Whether the shop has a manager. Until it has one, nobody signs in. */
  hasManager: boolean;
  /** In the demo, whom one can be at this computer by one click; empty elsewhere. */
  demo: PersonAnswer[];
}

/** What is sent by mail or shown to whoever is to join; the token is told once, and kept nowhere. */
export interface InvitationAnswer {
  token: string;
  role: Role;
  /** Until when somebody can join by it, as ISO 8601 in UTC. */
  validUntil: string;
}

const nameSays = 'A name has 1 to 120 characters.';
const passwordSays = 'A password has 10 to 200 characters.';

/** Somebody who comes, with the password that they choose. */
export class NewPersonDto {
  @IsString()
  @Length(1, 120, { message: nameSays })
  name!: string;

  @IsString()
  @Length(10, 200, { message: passwordSays })
  password!: string;
}

export class SignInDto {
  @IsString()
  @Length(1, 120, { message: nameSays })
  name!: string;

  @IsString()
  @Length(1, 200, { message: 'Type your password.' })
  password!: string;
}

/** Whom somebody wants to be in the demo. */
export class BeDto {
  @IsString()
  @Length(1, 60)
  personId!: string;
}

export class NewPasswordDto {
  /** The one that holds until now. */
  @IsString()
  @Length(1, 200, { message: 'Type the password that you have now.' })
  current!: string;

  @IsString()
  @Length(10, 200, { message: passwordSays })
  next!: string;
}

export class InviteDto {
  @IsIn(roles, { message: `A role is one of ${roles.join(', ')}.` })
  role!: Role;
}

/** Somebody who joins by an invitation. */
export class JoinDto extends NewPersonDto {
  @IsString()
  @Length(1, 100, { message: 'The link of an invitation holds its token.' })
  token!: string;
}

/** What of a person is changed; the rest stays. */
export class ChangePersonDto {
  @IsOptional()
  @IsIn(roles, { message: `A role is one of ${roles.join(', ')}.` })
  role?: Role;

  /** Whether they are no longer of the shop. */
  @IsOptional()
  @IsBoolean()
  hasLeft?: boolean;
}
