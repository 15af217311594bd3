// What is known of a filter: the matrix it is, and what it promises.
#include "objects.hpp"

#include "document/filter_file.hpp"
#include "insight/algebra.hpp"
#include "proof/look.hpp"
#include "proof/report.hpp"

using namespace kasuri;
using library::failed;
using library::guarded;
using library::guarded_value;

struct kasuri_proofs {
    struct Row {
        proof::Outcome outcome;
        std::string statement, known;
    };
    std::vector<Row> rows;
};

int kasuri_matrix(const kasuri_filter* filter, double matrix[12]) {
    return guarded_value(0, [&] {
        const auto found = filter ? insight::shown_matrix(filter->subject) : std::nullopt;
        for (std::size_t row = 0; found && matrix && row < 3; ++row) {
            for (std::size_t i = 0; i < 3; ++i)
                matrix[4 * row + i] = found->matrix[row][i];
            matrix[4 * row + 3] = found->offset[row];
        }
        return found ? 1 : 0;
    });
}

kasuri_status kasuri_check(const kasuri_filter* filter, const kasuri_call* call, kasuri_proofs** proofs, int* holds,
                           kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || !proofs)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no filter, or nowhere to put its proofs");
        *proofs = nullptr;
        proof::FilterReport report;
        const subject::Subject& subject = filter->subject;
        const CancelToken cancel = library::token_of(call);
        bool whole = true;
        if (const lang::Rule* rule = subject.rule()) {
            const bool usual = subject.values() == subject::Subject(subject.chain_ptr()).values();
            const std::vector<std::vector<double>> settings =
                usual ? proof::settings_of(*rule) : std::vector<std::vector<double>>{subject.values()};
            whole = proof::check_all(subject, settings, report, cancel);
        } else if (const std::string& lines = filter->opened->look.proofs; !lines.empty()) {
            const auto statements = proof::look_statements(lines, subject.space());
            if (!statements)
                return failed(say, KASURI_TEXT_FAULT, statements.error());
            whole = proof::check_all(subject, {}, report, cancel, &statements.value());
        }
        if (!whole)
            return KASURI_CALLED_OFF;
        auto made = std::make_unique<kasuri_proofs>();
        for (proof::Outcome& outcome : report.outcomes) {
            std::string statement = proof::report(outcome), known = proof::how_known(outcome);
            made->rows.push_back({std::move(outcome), std::move(statement), std::move(known)});
        }
        if (holds) {
            proof::FilterReport judged;
            for (const kasuri_proofs::Row& row : made->rows)
                judged.outcomes.push_back(row.outcome);
            *holds = judged.good() ? 1 : 0;
        }
        *proofs = made.release();
        return KASURI_OK;
    });
}

void kasuri_proofs_free(kasuri_proofs* proofs) { delete proofs; }

size_t kasuri_proof_count(const kasuri_proofs* proofs) { return proofs ? proofs->rows.size() : 0; }

kasuri_status kasuri_proof_at(const kasuri_proofs* proofs, size_t index, kasuri_proof* proof) {
    if (!proof || index >= kasuri_proof_count(proofs))
        return KASURI_BAD_ARGUMENT;
    const kasuri_proofs::Row& row = proofs->rows[index];
    const proof::Outcome& it = row.outcome;
    *proof = {it.title.c_str(),
              it.function.c_str(),
              row.statement.c_str(),
              row.known.c_str(),
              it.at.c_str(),
              it.figure,
              it.limit,
              it.passed ? 1 : 0,
              it.proved ? 1 : 0,
              it.offered ? 0 : 1,
              {},
              {},
              it.samples,
              it.bounded ? 1 : 0};
    for (std::size_t c = 0; c < 4; ++c) {
        proof->before[c] = it.worst.before[c];
        proof->after[c] = it.worst.after[c];
    }
    return KASURI_OK;
}
