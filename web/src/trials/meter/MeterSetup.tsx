import type { Trial } from '@ypsometer/contract'
import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import { SetupNumber } from '../setup'

/** The factor of a flow meter, and how well it is known. */
export const MeterSetup = ({ trial }: { readonly trial: Trial }) => (
  <>
    <SetupNumber
      trial={trial}
      field="kFactor"
      label="Meter factor, pulses per litre"
      dimension="ratio"
      usual={USUAL_SETUP.kFactor}
      scale={1e-3}
      hint="From its data sheet, or better from a check of the meter."
    />
    <SetupNumber
      trial={trial}
      field="kUncertainty"
      label="Standard uncertainty of the factor"
      dimension="ratio"
      usual={USUAL_SETUP.kUncertainty}
      unit="%"
    />
  </>
)
