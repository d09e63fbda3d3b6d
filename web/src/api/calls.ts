/** Every call of the API that the pages make, by what it does. */
import { carry, client, upload, value } from './client';
import type {
  Alternative,
  AskFurring,
  AskGrid,
  BackLine,
  Backing,
  BayHold,
  Detection,
  Bay,
  BayFit,
  CheckFound,
  Closing,
  Datum,
  Divide,
  Divided,
  Furring,
  Instrument,
  Job,
  JobLine,
  Kept,
  LengthUnit,
  Laid,
  Mark,
  Note,
  Outcome,
  Passage,
  Place,
  Reading,
  Revision,
  Session,
  ShimKit,
  StoredJob,
  Template,
  ThinnedScan,
  Trait,
} from './types';

async function session(
  call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<Session> {
  const found = await value<Session>(call);
  carry(found.csrf);
  return found;
}

const bayPath = (job: string, bay: string) => ({ params: { path: { job_id: job, bay_id: bay } } });
const jobPath = (job: string) => ({ params: { path: { job_id: job } } });

export const calls = {
  session: () => session(client.GET('/api/session')),
  signIn: (user: string, password: string) =>
    session(client.POST('/api/session', { body: { user, password } })),
  openDemo: () => session(client.POST('/api/session/demo')),
  signOut: () => session(client.DELETE('/api/session')),

  jobs: (): Promise<JobLine[]> => value(client.GET('/api/jobs')),
  job: (id: string): Promise<StoredJob> => value(client.GET('/api/jobs/{job_id}', jobPath(id))),
  importJob: (job: Job): Promise<StoredJob> => value(client.POST('/api/jobs', { body: job })),
  /** A document from a file goes as it is, so that the server can name the fault by its path. */
  importText: (text: string): Promise<StoredJob> =>
    value(client.POST('/api/jobs', { body: text as never, bodySerializer: (raw: unknown) => raw as string })),
  deleteJob: (id: string) => value(client.DELETE('/api/jobs/{job_id}', jobPath(id))),
  putAbout: (
    id: string,
    about: { revision: number; name: string; place: string; note: string; units: LengthUnit },
  ): Promise<StoredJob> => value(client.PUT('/api/jobs/{job_id}/about', { ...jobPath(id), body: about })),
  putKit: (id: string, revision: number, kit: ShimKit): Promise<StoredJob> =>
    value(client.PUT('/api/jobs/{job_id}/kit', { ...jobPath(id), body: { revision, kit } })),
  putInstruments: (id: string, revision: number, instruments: Instrument[]): Promise<StoredJob> =>
    value(client.PUT('/api/jobs/{job_id}/instruments', { ...jobPath(id), body: { revision, instruments } })),
  putBay: (id: string, revision: number, bay: Bay): Promise<StoredJob> =>
    value(client.PUT('/api/jobs/{job_id}/bays', { ...jobPath(id), body: { revision, bay } })),

  gauge: (job: string, bay: string): Promise<Place> =>
    value(client.GET('/api/jobs/{job_id}/bays/{bay_id}/gauge', bayPath(job, bay))),
  addReadings: (job: string, bay: string, readings: Reading[]): Promise<Kept> =>
    value(
      client.POST('/api/jobs/{job_id}/bays/{bay_id}/readings', { ...bayPath(job, bay), body: { readings } }),
    ),
  addFinds: (
    job: string,
    bay: string,
    notes: Note[],
    marks: { mark: Mark; was: Mark | null }[],
  ): Promise<Revision> =>
    value(
      client.POST('/api/jobs/{job_id}/bays/{bay_id}/finds', { ...bayPath(job, bay), body: { notes, marks } }),
    ),
  setAside: (job: string, bay: string, reading: string, reason: string, by: string): Promise<Revision> =>
    value(
      client.PUT('/api/jobs/{job_id}/bays/{bay_id}/readings/{reading_id}/aside', {
        params: { path: { job_id: job, bay_id: bay, reading_id: reading } },
        body: { reason, by, at: new Date().toISOString() },
      }),
    ),
  putBack: (job: string, bay: string, reading: string): Promise<Revision> =>
    value(
      client.DELETE('/api/jobs/{job_id}/bays/{bay_id}/readings/{reading_id}/aside', {
        params: { path: { job_id: job, bay_id: bay, reading_id: reading } },
      }),
    ),

  traits: (job: string, bay: string): Promise<Trait[]> =>
    value(client.GET('/api/jobs/{job_id}/bays/{bay_id}/traits', bayPath(job, bay))),
  /** The file goes as it is; how it was called tells the server's faults where they are. */
  thinScan: (
    job: string,
    bay: string,
    surface: string,
    file: File,
    onprogress: (share: number) => void,
  ): Promise<ThinnedScan> =>
    upload(
      `/api/jobs/${job}/bays/${bay}/scan?${String(new URLSearchParams({ surface, name: file.name }))}`,
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

  fit: (job: string, bay: string): Promise<BayFit> =>
    value(client.GET('/api/jobs/{job_id}/bays/{bay_id}/fit', bayPath(job, bay))),
  tryFit: (
    job: string,
    bay: string,
    datum: Datum,
    back_line: BackLine,
    closing: Closing,
    signal?: AbortSignal,
  ): Promise<BayFit> =>
    value(
      client.POST('/api/jobs/{job_id}/bays/{bay_id}/fit', {
        ...bayPath(job, bay),
        body: { datum, back_line, closing },
        ...(signal ? { signal } : {}),
      }),
    ),
  putDecisions: (
    job: string,
    bay: string,
    revision: number,
    datum: Datum,
    back_line: BackLine,
    closing: Closing,
  ): Promise<StoredJob> =>
    value(
      client.PUT('/api/jobs/{job_id}/bays/{bay_id}/decisions', {
        ...bayPath(job, bay),
        body: { revision, datum, back_line, closing },
      }),
    ),
  putWayIn: (id: string, revision: number, way_in: Passage[]): Promise<StoredJob> =>
    value(client.PUT('/api/jobs/{job_id}/way-in', { ...jobPath(id), body: { revision, way_in } })),
  putAlternatives: (
    job: string,
    bay: string,
    revision: number,
    alternatives: Alternative[],
  ): Promise<StoredJob> =>
    value(
      client.PUT('/api/jobs/{job_id}/bays/{bay_id}/alternatives', {
        ...bayPath(job, bay),
        body: { revision, alternatives },
      }),
    ),
  compare: (job: string, bay: string): Promise<Outcome[]> =>
    value(client.GET('/api/jobs/{job_id}/bays/{bay_id}/alternatives', bayPath(job, bay))),
  template: (job: string, bay: string, scribe: string): Promise<Template> =>
    value(
      client.GET('/api/jobs/{job_id}/bays/{bay_id}/scribes/{scribe_id}/tiles', {
        params: { path: { job_id: job, bay_id: bay, scribe_id: scribe } },
      }),
    ),
  divide: (asked: Divide): Promise<Divided> => value(client.POST('/api/jobs/divide', { body: asked })),

  hold: (job: string, bay: string): Promise<BayHold> =>
    value(client.GET('/api/jobs/{job_id}/bays/{bay_id}/hold', bayPath(job, bay))),
  addDetections: (job: string, bay: string, detections: Detection[]): Promise<StoredJob> =>
    value(
      client.POST('/api/jobs/{job_id}/bays/{bay_id}/detections', {
        ...bayPath(job, bay),
        body: { detections },
      }),
    ),
  takeDetectionBack: (job: string, bay: string, detection: string): Promise<StoredJob> =>
    value(
      client.DELETE('/api/jobs/{job_id}/bays/{bay_id}/detections/{detection_id}', {
        params: { path: { job_id: job, bay_id: bay, detection_id: detection } },
      }),
    ),
  putBacking: (
    job: string,
    bay: string,
    revision: number,
    backing: Backing,
    of: 'walls' | 'ceiling' | 'floor',
  ): Promise<StoredJob> =>
    value(
      client.PUT('/api/jobs/{job_id}/bays/{bay_id}/backing', {
        ...bayPath(job, bay),
        body: { revision, backing, of },
      }),
    ),
  furring: (job: string, bay: string, asked: AskFurring): Promise<{ furring: Furring | null }> =>
    value(client.POST('/api/jobs/{job_id}/bays/{bay_id}/furring', { ...bayPath(job, bay), body: asked })),
  grid: (asked: AskGrid): Promise<Laid> => value(client.POST('/api/jobs/grid', { body: asked })),
};
