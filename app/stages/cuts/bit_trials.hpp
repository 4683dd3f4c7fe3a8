// What each of the rack's bits would do if it cut the chosen piece: worked out behind the window, for whoever shows it.
#pragma once

#include <QObject>
#include <optional>

#include "parts/ticket.hpp"
#include "planning/piece_key.hpp"
#include "planning/trials.hpp"
#include "work/behind.hpp"

namespace doyen {

class BitTrials : public QObject {
  Q_OBJECT
 public:
  explicit BitTrials(Workshop& shop) : shop_(shop) {}
  // The choice and the piece as they stand now. False where what was asked for before no longer holds: its answers come
  // no more.
  bool look_at(const BitChoice& choice, const Item& item, const PiecePlan* piece);
  [[nodiscard]] bool known() const { return !key_ || key_ == asked_; }  // or on the way
  [[nodiscard]] bool waiting() const { return waiting_; }
  void ask();
  void forget() { asked_.reset(); }
  // “23 min, leaves 4 mm²”; a V's depth before that, which hangs on its angle.
  [[nodiscard]] QString in_words(const QString& bit, const Trial& trial) const;

 Q_SIGNALS:
  void told(const QString& bit, const doyen::Trial& trial);
  void ended();  // whoever was not told of cannot be used here

 private:
  Workshop& shop_;
  BitChoice choice_;
  std::string piece_;
  // What the answers hang on: the piece whatever bit is chosen, the bits with their feeds, the machine.
  struct Asked {
    PieceKey piece;
    Rack rack;
    MachineProfile machine;
    friend bool operator==(const Asked&, const Asked&) = default;
  };
  std::optional<Asked> key_, asked_;  // as it stands, and as it was asked for
  Behind behind_;
  bool waiting_ = false;
};

}  // namespace doyen
