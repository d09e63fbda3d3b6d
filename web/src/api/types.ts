/** Short names for the values that the API's schema describes. */
import type { components } from './schema';

type Schemas = components['schemas'];

export type Fact = Schemas['Place']['facts'][number];
export type Reading = Offset | Slope | Span | Gap | Corner | Profile | Scan;
/** What was found out of a place, list by list: made from its facts when a job arrives, never sent back. */
export interface FoundOut {
  readings: Reading[];
  obstacles: Obstacle[];
  detections: Detection[];
  notes: Note[];
}
export type Place = Schemas['Place'] & FoundOut;
export type Job = Omit<Schemas['Job'], 'places'> & { places: Place[] };
/** A job as it travels: facts in one list. */
export type JobDocument = Schemas['Job'];
export type Note = Schemas['Note'];
export type CheckFound = Schemas['CheckFound'];
export type Obstacle = Schemas['Obstacle'];
export type Unit = Schemas['Unit'];
export type SetUp = Schemas['SetUp'];
export type Instrument = Schemas['Instrument'];
export type ShimKit = Schemas['ShimKit'];
export type Offset = Schemas['Offset'];
export type Slope = Schemas['Slope'];
export type Span = Schemas['Span'];
export type Gap = Schemas['Gap'];
export type Corner = Schemas['Corner'];
export type Profile = Schemas['Profile'];
export type Scan = Schemas['Scan'];
export type Trait = Schemas['Trait'];
export type ThinnedScan = Schemas['ThinnedScan'];
export type SurfaceName = Schemas['Offset']['surface'];
export type Surveyed = Schemas['Surveyed'];
export type SurfaceShape = Schemas['SurfaceShape'];
export type NextReading = Schemas['NextReading'];
export type Station = Schemas['Station'];
export type ReadingVerdict = Schemas['ReadingVerdict'];
export type PlaceFit = Schemas['PlaceFit'];
export type Plan = Schemas['Plan'];
export type Shim = Schemas['Shim'];
export type Packing = Schemas['Packing'];
export type Filling = Schemas['Filling'];
export type Finding = Schemas['Finding'];
export type Figure = Schemas['Figure'];
export type DatumMethod = Schemas['DatumMethod'];
export type Datum = PlaceFit['datum'];
export type Closing = Schemas['Closing'];
export type Alternative = Schemas['Alternative'];
export type Outcome = Schemas['Outcome'];
export type Sides = Schemas['Sides'];
export type Filler = Schemas['Filler'];
export type Scribe = Schemas['Scribe'];
export type FlatPart = Schemas['FlatPart'];
export type Access = Schemas['Access'];
export type Cutout = Schemas['Cutout'];
export type Swing = Schemas['Swing'];
export type Hanger = Schemas['Hanger'];
export type FaceFrame = Schemas['FaceFrame'];
export type Foot = Schemas['Foot'];
export type Template = Schemas['Template'];
export type Divided = Schemas['Divided'];
export type Divide = Schemas['Divide'];
export type PlaceHold = Schemas['PlaceHold'];
export type Held = Schemas['Held'];
export type Detection = Schemas['Detection'];
export type Backing = Schemas['Backing'];
export type Anchor = Schemas['Anchor'];
export type Lines = Schemas['Lines'];
export type StructureLine = Schemas['StructureLine'];
export type Fastener = Schemas['Fastener'];
export type Behind = NonNullable<Detection['surface']>;
export type Furring = Schemas['Furring'];
export type AskFurring = Schemas['AskFurring'];
export type AskGrid = Schemas['AskGrid'];
export type Laid = Schemas['Laid'];
export type Passage = NonNullable<Job['way_in']>[number];
export type Standing = NonNullable<Unit['standing']>;
export type BackLine = Schemas['BackLine'];
export type SentJob = Schemas['StoredJob'];
export type StoredJob = Omit<SentJob, 'job'> & { job: Job };
export type JobLine = Schemas['JobLine'];
export type Session = Schemas['Session'];
export type Fault = Schemas['Fault'];
export type LengthUnit = Job['units'];
export type Kept = Schemas['Kept'];
export type Revision = Schemas['Revision'];
export type About = Schemas['About'];
export type Decisions = Schemas['Decisions'];
export type MadeOf = Schemas['MadeOf'];
export type Side = Schemas['Side'];
export type Settle = Schemas['Settle'];
/** A value as a form was drawn from it, and as it should be. */
export interface Edit<T> {
  was: T;
  now: T;
  settle: Settle | null;
}
export type Link = Schemas['Link'];
