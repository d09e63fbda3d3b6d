/** Every call of the API that the pages make, by what it does. */
import { decided, opened } from '../entry/facts';
import { carry, client, upload, value } from './client';
import type {
  AimOutcome,
  About,
  Alternative,
  AskFurring,
  Begin,
  AskGrid,
  AskedTonight,
  BackLine,
  PlaceHold,
  Place,
  PlaceFit,
  PlaceSet,
  CheckFound,
  Closing,
  Construction,
  Datum,
  Decisions,
  Divide,
  Divided,
  Edit,
  Evening,
  FinishingOutcome,
  Furring,
  Instrument,
  JobDocument,
  JobRecord,
  KeptPhoto,
  SentJob,
  Glance,
  JobLine,
  Kept,
  Laid,
  LaidOut,
  LengthUnit,
  Link,
  Made,
  MadeOf,
  Move,
  Outcome,
  Passage,
  Planned,
  Practised,
  Prices,
  Proposal,
  Surveyed,
  Fact,
  Reading,
  Revision,
  Session,
  Sessions,
  StageAt,
  SetOut,
  ShimKit,
  StarterTold,
  StockItem,
  StoredJob,
  Template,
  ThinnedScan,
  Trait,
  Tried,
  Trip,
  Workshop,
  DeletedJob,
} from './types';

async function session(
  call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<Session> {
  const found = await value<Session>(call);
  carry(found.csrf);
  return found;
}

/** A job as the pages read it: its facts list by list. */
async function asJob(
  call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<StoredJob> {
  return opened(await value<SentJob>(call));
}

const placePath = (job: string, place: string) => ({ params: { path: { job_id: job, place_id: place } } });
const jobPath = (job: string) => ({ params: { path: { job_id: job } } });

export const calls = {
  session: () => session(client.GET('/api/session')),
  signIn: (user: string, password: string) =>
    session(client.POST('/api/session', { body: { user, password } })),
  openDemo: () => session(client.POST('/api/session/demo')),
  signOut: () => session(client.DELETE('/api/session')),

  makeFirst: (user: string, password: string, code: string) =>
    session(client.POST('/api/session/first', { body: { user, password, code } })),
  invitation: (key: string): Promise<Link> =>
    value(client.GET('/api/session/invitations/{key}', { params: { path: { key } } })),
  invite: (whom = ''): Promise<Link> => value(client.POST('/api/session/invitations', { body: { whom } })),
  people: (): Promise<string[]> => value(client.GET('/api/session/people')),
  join: (key: string, user: string, password: string) =>
    session(client.POST('/api/session/join', { body: { key, user, password } })),
  putPassword: (old: string, password: string) =>
    session(client.PUT('/api/session/password', { body: { old, password } })),
  bringAll: (file: File): Promise<{ name: string }[]> => upload('/api/jobs/all.zip', file, () => undefined),

  glance: (id: string): Promise<Glance> => value(client.GET('/api/jobs/{job_id}/glance', jobPath(id))),
  planned: (job: string, place: string): Promise<StageAt[]> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/planned', placePath(job, place))),
  beginPractice: (units: LengthUnit): Promise<StoredJob> =>
    asJob(client.POST('/api/jobs/practice', { body: { units, seed: null } })),
  practice: (job: string, place: string): Promise<Practised> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/practice', placePath(job, place))),
  readInPractice: (job: string, place: string, asked: Reading[], apprentice: boolean): Promise<Reading[]> =>
    value(
      client.POST('/api/jobs/{job_id}/places/{place_id}/practice', {
        ...placePath(job, place),
        body: { asked, apprentice },
      }),
    ),
  jobs: (): Promise<JobLine[]> => value(client.GET('/api/jobs')),
  job: (id: string): Promise<StoredJob> => asJob(client.GET('/api/jobs/{job_id}', jobPath(id))),
  importJob: (job: JobDocument): Promise<StoredJob> => asJob(client.POST('/api/jobs', { body: job })),
  /** A document from a file goes as it is, so that the server can name the fault by its path. */
  importText: (text: string): Promise<StoredJob> =>
    asJob(client.POST('/api/jobs', { body: text as never, bodySerializer: (raw: unknown) => raw as string })),
  deletedJobs: (): Promise<DeletedJob[]> => value(client.GET('/api/jobs/deleted')),
  bringBack: (id: string): Promise<StoredJob> => asJob(client.POST('/api/jobs/{job_id}/back', jobPath(id))),
  deleteJob: (id: string) => value(client.DELETE('/api/jobs/{job_id}', jobPath(id))),
  putAbout: (id: string, edit: Edit<About>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/about', { ...jobPath(id), body: edit })),
  putKit: (id: string, edit: Edit<{ kit: ShimKit }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/kit', { ...jobPath(id), body: edit })),
  putWays: (id: string, edit: Edit<{ constructions: readonly Construction[] }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/constructions', { ...jobPath(id), body: edit as never })),
  make: (id: string): Promise<Made> => value(client.GET('/api/jobs/{job_id}/make', jobPath(id))),
  aims: (id: string): Promise<AimOutcome[]> => value(client.GET('/api/jobs/{job_id}/aims', jobPath(id))),
  searchLonger: (id: string, seed: number): Promise<Made> =>
    value(client.POST('/api/jobs/{job_id}/make', { ...jobPath(id), body: { seconds: 3, seed } })),
  putWorkshop: (id: string, edit: Edit<{ workshop: Workshop }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/workshop', { ...jobPath(id), body: edit as never })),
  readStock: (id: string, text: string): Promise<{ stock: StockItem[] }> =>
    value(client.POST('/api/jobs/{job_id}/stock.csv', { ...jobPath(id), body: { text } })),
  readPrices: (id: string, text: string): Promise<Prices> =>
    value(client.POST('/api/jobs/{job_id}/prices.csv', { ...jobPath(id), body: { text } })),
  set: (job: string, place: string): Promise<PlaceSet> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/set', placePath(job, place))),
  proposal: (job: string, place: string): Promise<Proposal> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/proposal', placePath(job, place))),
  record: (id: string): Promise<JobRecord> => value(client.GET('/api/jobs/{job_id}/record', jobPath(id))),
  /** The picture goes as it is; it is on the server's disk when this is answered. */
  keepPhoto: (id: string, picture: Blob, onprogress: (share: number) => void): Promise<KeptPhoto> =>
    upload(`/api/jobs/${id}/photos`, picture, onprogress),
  order: (id: string, now: string): Promise<Planned> =>
    value(client.GET('/api/jobs/{job_id}/order', { params: { path: { job_id: id }, query: { now } } })),
  trip: (id: string, jobs: readonly string[]): Promise<Trip> =>
    value(client.POST('/api/jobs/{job_id}/trip', { ...jobPath(id), body: { jobs: [...jobs] } })),
  tonight: (id: string, body: Evening): Promise<AskedTonight> =>
    value(client.POST('/api/jobs/{job_id}/tonight', { ...jobPath(id), body: body as never })),
  finishing: (id: string, now: string): Promise<FinishingOutcome[]> =>
    value(client.GET('/api/jobs/{job_id}/finishing', { params: { path: { job_id: id }, query: { now } } })),
  putSessions: (id: string, edit: Edit<{ sessions: Sessions }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/sessions', { ...jobPath(id), body: edit as never })),
  putInstruments: (id: string, edit: Edit<{ instruments: readonly Instrument[] }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/instruments', { ...jobPath(id), body: edit as never })),
  putPlace: (id: string, { was, now, settle }: Edit<Place | null>): Promise<StoredJob> =>
    asJob(
      client.PUT('/api/jobs/{job_id}/places', {
        ...jobPath(id),
        body: { was: was && decided(was), now: now && decided(now), settle },
      }),
    ),

  gauge: (job: string, place: string): Promise<Surveyed> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/gauge', placePath(job, place))),
  addFacts: (job: string, place: string, facts: Fact[]): Promise<Kept> =>
    value(
      client.POST('/api/jobs/{job_id}/places/{place_id}/facts', {
        ...placePath(job, place),
        body: { facts },
      }),
    ),
  setAside: (job: string, place: string, fact: string, reason: string, by: string): Promise<Revision> =>
    value(
      client.PUT('/api/jobs/{job_id}/places/{place_id}/facts/{fact_id}/aside', {
        params: { path: { job_id: job, place_id: place, fact_id: fact } },
        body: { reason, by, at: new Date().toISOString() },
      }),
    ),
  putBack: (job: string, place: string, fact: string): Promise<Revision> =>
    value(
      client.DELETE('/api/jobs/{job_id}/places/{place_id}/facts/{fact_id}/aside', {
        params: { path: { job_id: job, place_id: place, fact_id: fact } },
      }),
    ),

  traits: (job: string, place: string): Promise<Trait[]> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/traits', placePath(job, place))),
  /** The file goes as it is; how it was called tells the server's faults where they are. */
  thinScan: (
    job: string,
    place: string,
    surface: string,
    file: File,
    onprogress: (share: number) => void,
  ): Promise<ThinnedScan> =>
    upload(
      `/api/jobs/${job}/places/${place}/scan?${String(new URLSearchParams({ surface, name: file.name }))}`,
      file,
      onprogress,
    ),

  shelf: (): Promise<Instrument[]> => value(client.GET('/api/shelf')),
  putOnShelf: (instrument: Instrument): Promise<Instrument[]> =>
    value(client.PUT('/api/shelf', { body: instrument })),
  takeOffShelf: (key: string): Promise<Instrument[]> =>
    value(client.DELETE('/api/shelf/{key}', { params: { path: { key } } })),
  checkFindings: (instrument: Instrument): Promise<CheckFound[]> =>
    value(client.POST('/api/shelf/checks', { body: instrument })),

  fit: (job: string, place: string): Promise<PlaceFit> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/fit', placePath(job, place))),
  tryFit: (
    job: string,
    place: string,
    datum: Datum,
    back_line: BackLine,
    closing: Closing,
    signal?: AbortSignal,
  ): Promise<PlaceFit> =>
    value(
      client.POST('/api/jobs/{job_id}/places/{place_id}/fit', {
        ...placePath(job, place),
        body: { datum, back_line, closing },
        ...(signal ? { signal } : {}),
      }),
    ),
  putDecisions: (job: string, place: string, edit: Edit<Decisions>): Promise<StoredJob> =>
    asJob(
      client.PUT('/api/jobs/{job_id}/places/{place_id}/decisions', {
        ...placePath(job, place),
        body: edit,
      }),
    ),
  putWayIn: (id: string, edit: Edit<{ way_in: readonly Passage[] }>): Promise<StoredJob> =>
    asJob(client.PUT('/api/jobs/{job_id}/way-in', { ...jobPath(id), body: edit as never })),
  putAlternatives: (
    job: string,
    place: string,
    edit: Edit<{ alternatives: readonly Alternative[] }>,
  ): Promise<StoredJob> =>
    asJob(
      client.PUT('/api/jobs/{job_id}/places/{place_id}/alternatives', {
        ...placePath(job, place),
        body: edit as never,
      }),
    ),
  compare: (job: string, place: string): Promise<Outcome[]> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/alternatives', placePath(job, place))),
  rod: (job: string, place: string, rod: string): Promise<Template> =>
    value(
      client.GET('/api/jobs/{job_id}/places/{place_id}/rods/{rod}/tiles', {
        params: { path: { job_id: job, place_id: place, rod } },
      }),
    ),
  template: (job: string, place: string, scribe: string): Promise<Template> =>
    value(
      client.GET('/api/jobs/{job_id}/places/{place_id}/scribes/{scribe_id}/tiles', {
        params: { path: { job_id: job, place_id: place, scribe_id: scribe } },
      }),
    ),
  partTemplate: (job: string, mark: string): Promise<Template> =>
    value(client.GET('/api/jobs/{job_id}/parts/{mark}/tiles', { params: { path: { job_id: job, mark } } })),
  setOut: (job: string, place: string): Promise<LaidOut> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/setout', placePath(job, place))),
  trySetOut: (job: string, place: string, said: SetOut, move: Move | null): Promise<Tried> =>
    value(
      client.POST('/api/jobs/{job_id}/places/{place_id}/setout', {
        ...placePath(job, place),
        body: { said, move } as never,
      }),
    ),
  putSetOut: (job: string, place: string, edit: Edit<SetOut>): Promise<StoredJob> =>
    asJob(
      client.PUT('/api/jobs/{job_id}/places/{place_id}/setout', {
        ...placePath(job, place),
        body: edit as never,
      }),
    ),
  starters: (units: LengthUnit): Promise<StarterTold[]> =>
    value(client.GET('/api/starters', { params: { query: { units } } })),
  begin: (job: string, asked: Begin): Promise<StoredJob> =>
    asJob(client.POST('/api/jobs/{job_id}/begin', { ...jobPath(job), body: asked })),
  divide: (asked: Divide): Promise<Divided> => value(client.POST('/api/jobs/divide', { body: asked })),

  hold: (job: string, place: string): Promise<PlaceHold> =>
    value(client.GET('/api/jobs/{job_id}/places/{place_id}/hold', placePath(job, place))),
  putBacking: (job: string, place: string, edit: Edit<MadeOf>): Promise<StoredJob> =>
    asJob(
      client.PUT('/api/jobs/{job_id}/places/{place_id}/backing', { ...placePath(job, place), body: edit }),
    ),
  furring: (job: string, place: string, asked: AskFurring): Promise<{ furring: Furring | null }> =>
    value(
      client.POST('/api/jobs/{job_id}/places/{place_id}/furring', { ...placePath(job, place), body: asked }),
    ),
  grid: (asked: AskGrid): Promise<Laid> => value(client.POST('/api/jobs/grid', { body: asked })),
};
