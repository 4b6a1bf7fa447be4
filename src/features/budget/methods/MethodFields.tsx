'use client';

import { assertNever } from '@/core/assertNever';
import type { Method } from '@/core/model';
import { DriverFields } from './fields/DriverFields';
import { FormulaFields } from './fields/FormulaFields';
import { LastYearFields } from './fields/LastYearFields';
import { OccurrenceFields } from './fields/OccurrenceFields';
import { PatternFields } from './fields/PatternFields';
import { PhasedFields } from './fields/PhasedFields';
import { RunRateFields } from './fields/RunRateFields';
import { ScheduleFields } from './fields/ScheduleFields';
import { ShareFields } from './fields/ShareFields';
import { StepFields } from './fields/StepFields';
import { UnphasedFields } from './fields/UnphasedFields';
import type { FieldsProps } from './inputs/parts';

/** The inputs of a method. */
export function MethodFields(props: FieldsProps<Method>) {
  const { method } = props;
  switch (method.kind) {
    case 'byMonth':
      return null;
    case 'lastYear':
      return <LastYearFields {...props} method={method} />;
    case 'runRate':
      return <RunRateFields {...props} method={method} />;
    case 'phased':
      return <PhasedFields {...props} method={method} />;
    case 'pattern':
      return <PatternFields {...props} method={method} />;
    case 'step':
      return <StepFields {...props} method={method} />;
    case 'share':
      return <ShareFields {...props} method={method} />;
    case 'occurrence':
      return <OccurrenceFields {...props} method={method} />;
    case 'driver':
      return <DriverFields {...props} method={method} />;
    case 'formula':
      return <FormulaFields {...props} method={method} />;
    case 'unphased':
      return <UnphasedFields {...props} method={method} />;
    case 'schedule':
      return <ScheduleFields {...props} method={method} />;
    default:
      return assertNever(method);
  }
}
