#include "audit_verb.h"
#include "check_verb.h"
#include "day_verb.h"
#include "new_verb.h"
#include "part_verbs.h"
#include "probe_verb.h"
#include "procedure_verb.h"
#include "run_verb.h"
#include "service_verbs.h"
#include "setting_verbs.h"
#include "settings_verb.h"
#include "sum_verb.h"
#include "unit_verb.h"
#include "visit_verb.h"
#include "year_verb.h"

namespace vernal {

std::vector<std::unique_ptr<Verb>> all_verbs()
{
    std::vector<std::unique_ptr<Verb>> out;
    out.push_back(std::make_unique<RunVerb>());
    out.push_back(std::make_unique<CheckVerb>());
    out.push_back(std::make_unique<ReserveVerb>());
    out.push_back(std::make_unique<SumVerb>());
    out.push_back(std::make_unique<ProbeVerb>());
    out.push_back(std::make_unique<SettingsVerb>());
    out.push_back(std::make_unique<ChooseVerb>());
    out.push_back(std::make_unique<NewVerb>());
    out.push_back(std::make_unique<DayVerb>());
    out.push_back(std::make_unique<YearVerb>());
    out.push_back(std::make_unique<AuditVerb>());
    out.push_back(std::make_unique<ProcedureVerb>());
    out.push_back(std::make_unique<UnitVerb>());
    out.push_back(std::make_unique<VisitVerb>());
    out.push_back(std::make_unique<DueVerb>());
    out.push_back(std::make_unique<CallVerb>());
    out.push_back(std::make_unique<TriageVerb>());
    out.push_back(std::make_unique<SeasonsVerb>());
    out.push_back(std::make_unique<ReportVerb>());
    out.push_back(std::make_unique<GetVerb>());
    out.push_back(std::make_unique<SetVerb>());
    out.push_back(std::make_unique<AddVerb>());
    out.push_back(std::make_unique<RemoveVerb>());
    out.push_back(std::make_unique<FieldsVerb>());
    out.push_back(std::make_unique<SchemaVerb>());
    return out;
}

} // namespace vernal
